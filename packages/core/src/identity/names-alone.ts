/** Well-known given names that have no other form in `nicknames.ts`: `gary` is no typing error of `mary`. */
export const NAMES_ALONE: ReadonlySet<string> = new Set(
  `
aaron adele aidan alan alana alastair alma alvin amber amelia amy arlene arnold ashley astrid aubrey audrey austin ava
barry basil beryl beverley blake bradley brandon brenda brent brian bruce bryan byron calvin carmen cecil cedric
cheryl chloe clarence clark claudia clifford clive connor corey cornelia craig curtis cynthia dale damian dana darren
dawn dean derek desmond diana diane dirk doreen douglas duncan dustin dwayne earl edith edna eileen elaine elliot elsa
enid erin ernest esther ethan ethel fay felicity felix finn fiona fleur freya gareth garry gary gavin gemma geraldine
gilbert gillian glen glenda gloria glyn gordon grace graham grant guy harvey hazel heather heidi hendrika hilary hilda
holly howard imogen ines ingrid iris ivor ivy jade jared jarrod jason jasper jeanette jeannie jenna jerome jesse jill
jocelyn jodie joel joy joyce june justin karen keith kelly kelvin kendra kerry kevin kieran kim kyle lauren leigh
leila lesley leslie lionel lloyd logan lorna lorraine lydia lyn lynn mabel malcolm marcel marcia marian marina marion
marissa marlene marnie martina marvin mason maurice mavis maxine mercy merle mildred miles monica morgan muriel myra
myrtle nadine naomi nelson neville nigel nina noel norma norman olive opal otto owen patience pearl percy perry petra
phoebe phyllis quentin ralph ramona randall rhoda rhonda rhys roberta roland rosalind ross rowan roxanne roy ruby
rufus russell ruth ryan sabrina selina serena seth shane shannon sharon shawn sheila shelley sherry shirley sidney
silas sonia spencer stacey stefania stella stuart sybil tamara tania tara thea thelma tiffany timon todd tracy travis
trevor tyler tyrone ulrike una vanessa vernon viola violet vivian wallace wanda warren wayne wesley wilhelma yolanda
yvette yvonne zara zoe
`
    .trim()
    .split(/\s+/),
);
