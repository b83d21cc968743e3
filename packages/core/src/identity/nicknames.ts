import { foldWords } from '../reading/fold-text';
import { NAMES_ALONE } from './names-alone';

/**
 * Given names by which one person goes, the full ones first. A short name may belong to several (`alex` to Alexander and
 * Alexandra).
 */
const GROUPS = `
abigail abby abbie gail
abraham abe abram ibrahim
adrian adrien adriaan ade
agnes agnieszka aga inez
albert bert al albrecht adalbert
alexander alex alec alexandre alessandro aleksandr aleksander alejandro sasha sandy xander sander lex sacha
alexandra alex sandra sasha lexi aleksandra alessandra sandy ola
alfred alf fred fredo alfredo
alice alicia ali alison allie
amanda mandy
andrew andy drew andreas andre andrea andrei andrzej andres anders andriy
angela angie angelika angelique
ann anna anne annie anita anneke anja anya hannah nancy anouk
anthony tony anton antonio antoni antoine toni antony
arthur art artur arturo
augustus gus august augusto augustin guus
barbara barb babs basia barbe
bartholomew bart barth bartosz bartlomiej
beatrice bea trixie beatrix beatriz
benjamin ben benny benji beniamin
bernard bernie bernhard bernd bernardo
bridget biddy bridie brigitte birgit brigid gitte
cameron cam
caroline carol carrie carolyn karoline carolina lina caro
catherine katherine kathryn cathy kathy kate katie kat kit katarina katarzyna kasia catarina katrin ekaterina yekaterina katya karin trijntje catalina kathrin caitlin
charles charlie chuck chas carl karl carlos carlo karel karol chaz
charlotte lottie charlie lotte carlotta
christina christine chris tina chrissy kristina kirsten krystyna kristin christa cristina stina
christopher chris kit topher christoph cristobal kris christophe krzysztof christoffer stoffel
claire clara klara klaire chiara
constance connie konstanze
cornelius cornelis neil cees kees cor corneel
daniel dan danny dani danilo daniil daniele
david dave davy davide dawid dafydd
deborah deb debbie debra
dennis denis denny dionysius
dominic dom nic dominik domingo domenico
donald don donny
dorothy dot dottie dora dorothea doris
edward ed eddie ted ned eduard edoardo eduardo edouard teddy
edmund ed eddie ned edmond
eleanor ellie nell nora ella leonora elinor lenore
elizabeth liz beth betty eliza lizzie libby lisa elisabeth elise elisabetta isabel lies lisbeth els elzbieta betsy bess sisi elsbeth
emily em emma emilia emmy emilie
eric erik erich eryk rick
eugene gene eugen eugenio evgeny yevgeny
eva eve evelyn evelien ewa
ferdinand fred ferdi fernando nando
florence flo flora florrie
frances fran franny fanny francesca franziska franca francine
francis frank fran franz francois francesco francisco frans paco franciszek pancho
frederick fred freddie fritz friedrich frederic frederik federico freek fryderyk rik
gabriel gabe gabriele gavril
gabrielle gabi gaby gabriela gabriella
geoffrey geoff jeff jeffrey gottfried
george georg jorge giorgio georges jerzy joris yuri jurgen yuriy jurij jiri
gerald gerry jerry gerhard gerd gerard geert gerrit
gertrude trudy gert gertrud
gregory greg gregor grzegorz grigory gregorio
gwendolyn gwen wendy
harold harry hal harald
harriet hattie harriette
helen nell ellen helena elena lena helene eleni ilona jelena yelena olena heleen leni
henry harry hank hal heinrich henri hendrik enrique enrico henk heinz henryk rik heiko
herbert herb bert bertie heribert
hubert bert hugh huub hubertus
hugh hugo huw
ian jan iain
ignatius iggy ignacio nacho ignacy ignaz
irene rene irena irina ira
isaac ike izaak
isabella bella izzy isabelle isabel ysabel
jacob jake jakob jaap jacobo jakub cob koos
jacqueline jackie jacqui
james jim jimmy jamie jem jago diego jaime giacomo seamus santiago hamish
jane janet jenny jean joanna janey jeanne giovanna johanna hanna jana juana joana
janet jan jane
jasmine jas yasmin yasmine jasmin
jennifer jen jenny jenni
jeremy jerry jem jeremiah jeremias
jessica jess jessie
joan joanne jo joanna johanna
john jack johnny jon johan johann johannes jan ian ivan juan jean giovanni hans sean evan joao jens jannes yann jovan hannes shaun
jonathan jon jonny nathan jonathon johnathan
joseph joe joey jose giuseppe josef jozef pepe joep jupp sepp beppe yusuf iosif josip
josephine jo josie josefine josefa
joshua josh
judith judy jude jutta
julia julie jules giulia juliet yulia juliette
julian jules julio julius giulio
katherine kate
kenneth ken kenny
laura laurie lora
laurence larry lawrence lorenz lorenzo laurent laurens lars lourens lorcan
leo leon leopold lev leonard leonardo len lenny leonhard
leonard len lenny leo
linda lindy
louis lou lewis ludwig luigi luis lodewijk louie lucho
louise lou lulu luise luisa lois
lucy lucia luzia lucie
luke lukas lucas luca lukasz luc
madeleine maddie maddy madeline magdalena lena magda
magdalena magda lena madzia
manuel manny manolo emanuel emmanuel manolis
margaret maggie meg peggy marge greta margarita gretchen margot rita marguerite daisy megan greet margriet malgorzata gosia gretel grete marjorie mags
maria mary marie molly polly mia marije miriam mariam mariya masha marieke maryam mitzi marija
mark marcus marc marco marek markus marcos
martha marta mattie marthe
martin marty marten martijn marcin martino maarten
mathilda matilda tilly mathilde tilda
matthew matt matty matthias mateo matteo mathieu matthijs mateusz thijs mattias matti matthieu
maximilian max maksim maxim massimo maxime maxwell
michael mike mick micky mikey michel michal miguel michele mikhail michiel misha mikael mihai micha mischa
michelle shelly chelle michaela
mohammed muhammad mohamed mohammad mo mehmet muhammed mohamad mohd mahomet
nathaniel nate nat nathan
natalie nat natalia natasha nataliya tasha natalya
nicholas nick nicky nicolas niklas klaus nikolai nicola claus niels nico nikolaus mikolaj nikolay colin klaas
nicole nicky nikki nicola nicolette colette
oliver olly ollie olivier oli
oscar oskar ozzie
pamela pam pammy
patricia pat patty trish tricia patsy patrizia
patrick pat paddy patrik patricio padraig patryk
paul pauly paulo pavel pablo paolo pal paulus pawel
paula pauline paola paulina pavla
penelope penny
peter pete pedro pierre pieter piotr petr pietro piet petrus per peer pyotr peadar
philip phil pip philipp felipe filippo philippe flip filip phillip
rachel rach rae raquel
raymond ray ramon raimund
rebecca becky becca rebekka
regina gina reggie
reginald reg reggie reinhold
richard rick dick rich ricky ricardo riccardo ritchie ryszard richie
robert rob bob bobby robbie bert roberto rupert robin ruprecht
roderick rod roddy rodrigo
roger rog rutger rudiger ruggero
ronald ron ronnie reinaldo
rosemary rose rosie rosemarie
rose rosa rosie roos roza
rudolf rudy rolf rudolph ralf
samantha sam sammy
samuel sam sammy samuele shmuel
sarah sally sara sadie sari
sebastian seb bastian bas sebastien seba
sergei sergey serge sergio serhiy
simon si simone szymon simeon
sofia sophie sophia zofia zosia sofie sofya sonja
stanley stan stanislav stanislaw stas
stephanie steph stefanie stephania stefania
stephen steve steven stefan stevie stephan esteban stefano etienne steffen szczepan stijn
susan sue susie suzanne susanna susanne zuzanna suzie sanna suse
sylvia silvia syl
terence terry
teresa theresa terry tess tessa therese teresita resi
theodore ted teddy theo theodor fyodor fedor teodor dorus
thomas tom tommy tomas tomasz tommaso tam thom maas
timothy tim timmy timotheus timo
ursula ulla uschi
valentina val
valerie val valeria
veronica ronnie vera veronika
victor vic viktor vittorio wiktor
victoria vicky tori vikki viktoria vittoria vic wiktoria
vincent vince vinny vinzenz vincenzo vicente
virginia ginny
vladimir vlad volodya wladimir volodymyr vova wlodzimierz
walter walt wally wouter gualtiero
wilhelmina mina billie willa wilma minna
william will bill billy willy liam wilhelm guillaume guglielmo willem wim guillermo bram pim
winifred winnie freda
wolfgang wolf wolfi
xavier javier xavi saverio
yves ivo yvo
zachary zach zack zacharias
abd abdul abdullah abdallah
ahmed ahmad ahmet hamed
ali aly
fatima fatma fatemeh fatimah
hassan hasan hussein husain
khalid khaled halid
omar umar omer
daniela daniella danielle
carla karla
erika erica
georgia georgina
claudio claude
`;

const WHOLE: ReadonlyMap<string, ReadonlySet<number>> = memberships();

function memberships(): Map<string, Set<number>> {
  const groups = new Map<string, Set<number>>();
  GROUPS.trim()
    .split('\n')
    .forEach((line, group) => {
      for (const name of foldWords(line)) groups.set(name, (groups.get(name) ?? new Set()).add(group));
    });
  return groups;
}

/**
 * Whether two given names are used of one person, either way round: `bill` and `william`, `pieter` and `peter`.
 *
 * @param one As `foldWords` leaves it.
 */
export function isNicknameOf(one: string, other: string): boolean {
  const groups = WHOLE.get(one);
  const others = WHOLE.get(other);
  if (!groups || !others) return false;
  for (const group of groups) if (others.has(group)) return true;
  return false;
}

/** The one name that stands for all by which somebody goes, so that they are found together; the name itself where none does. */
export function nicknameRoots(name: string): readonly string[] {
  const groups = WHOLE.get(name);
  return groups ? [...groups].map((group) => `~${group}`) : [name];
}

/** Whether a word is a well-known given name, so that another one is no typing error of it. */
export function isKnownGivenName(name: string): boolean {
  return WHOLE.has(name) || NAMES_ALONE.has(name);
}
