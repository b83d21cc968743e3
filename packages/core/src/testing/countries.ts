/** How people of one country are called and reached. */
export interface Country {
  code: string;
  given: string[];
  family: string[];
  short: Record<string, string>;
  phone: string;
  domain: string;
}

const words = (text: string) => text.split(' ');
/** Rare family names, put together of parts: most names of a country are such. */
const built = (heads: string, tails: string) =>
  words(heads).flatMap((head) => words(tails).map((tail) => `${head}${tail}`));
const pairs = (text: string) => Object.fromEntries(words(text).map((pair) => pair.split(':') as [string, string]));

export const COUNTRIES: readonly Country[] = [
  {
    code: 'GB',
    given: words(
      'James Mary John Patricia Robert Jennifer Michael Linda William Elizabeth David Barbara Richard Susan Joseph Jessica Thomas Sarah Charles Karen Christopher Nancy Daniel Lisa Matthew Betty Anthony Margaret Mark Sandra Donald Ashley Steven Kimberly Paul Emily Andrew Donna Joshua Michelle Kenneth Carol Kevin Amanda Brian Dorothy George Melissa Edward Deborah Ronald Stephanie Timothy Rebecca Jason Sharon Jeffrey Laura Ryan Cynthia Gary Kathleen Nicholas Amy Eric Angela Jonathan Shirley Stephen Anna Larry Brenda Justin Pamela Scott Emma Brandon Nicole Benjamin Helen Samuel Samantha Gregory Katherine Alexander Christine Patrick Rachel Raymond Janet Jack Catherine Dennis Maria Jerry Heather Tyler Diane Aaron Ruth Oduya Maren Imogen Tamsin Piers Rowan Isla Callum Fergus Niamh Siobhan Aoife Declan Cormac Bronwyn Gethin',
    ),
    family: [
      ...words(
        'Smith Jones Taylor Brown Williams Wilson Johnson Davies Patel Robinson Wright Thompson Evans Walker White Roberts Green Hall Thomas Clarke Jackson Wood Harris Edwards Turner Martin Cooper Hill Ward Hughes Moore Clark King Harrison Lewis Baker Lee Allen Morris Khan Scott Watson Davis Parker James Bennett Young Phillips Richardson Mitchell Bailey Carter Cook Singh Shaw Bell Collins Morgan Kelly Begum Miller Cox Hussain Marshall Simpson Price Anderson Adams Wilkinson Foster Ellis Murphy Chapman Mason Gray Richards Webb Rogers Hunt Mills Holmes Palmer Matthews Fisher Barnes Knight Harvey Dixon Whitlock Oduya Pemberton Ashdown Fairweather Thistlewood Quennell Larkspur Marlowe Hawthorne Winterbourne Greatorex Peverell Rushforth Applegarth Birkbeck Colclough Dunstable Entwistle Featherstone Garlick Heathcote Inchbald Jellicoe Kettlewell Lockwood Mossop Nethercott Ollerenshaw Postlethwaite Ravenscroft Satterthwaite Tunnicliffe Ughtred Vavasour Wolstenholme Yarborough',
      ),
      ...built(
        'Ash Black Brad Brom Cald Chat Cran Dal El Fair Gar Had Hart Kel Lang Mar Nor Old Pem Rad Red Ship Stan Strat Thorn Wal Whit Win Wood Wyn Bex Cop Dun Hol Lyn',
        'ford ton ley worth wood field ham bury stone well by more combe hurst shaw',
      ),
    ],
    short: pairs(
      'William:Bill Robert:Bob Richard:Rick Elizabeth:Liz Margaret:Peggy Katherine:Kate Catherine:Cathy Michael:Mike Christopher:Chris Thomas:Tom James:Jim Edward:Ted Anthony:Tony Andrew:Andy Benjamin:Ben Daniel:Dan David:Dave Deborah:Debbie Jennifer:Jenny Jessica:Jess Joseph:Joe Joshua:Josh Kenneth:Ken Matthew:Matt Nicholas:Nick Patricia:Pat Patrick:Paddy Rebecca:Becky Samantha:Sam Samuel:Sam Stephen:Steve Steven:Steve Susan:Sue Timothy:Tim Alexander:Alex Charles:Charlie Gregory:Greg Jeffrey:Jeff Jonathan:Jon Ronald:Ron Pamela:Pam Stephanie:Steph Amanda:Mandy Barbara:Barb Donald:Don Dorothy:Dot Raymond:Ray Rachel:Rach',
    ),
    phone: '+4477009',
    domain: 'example',
  },
  {
    code: 'NL',
    given: words(
      'Johannes Maria Jan Anna Cornelis Johanna Hendrik Elisabeth Willem Cornelia Pieter Catharina Gerrit Wilhelmina Petrus Adriana Jacobus Hendrika Daan Emma Sem Sophie Lucas Julia Levi Lotte Bram Sanne Thijs Femke Ruben Fleur Jeroen Marieke Sander Anouk Bas Wouter Joost Maaike Niels Esther Maarten Ilse',
    ),
    family: [
      ...words(
        'de_Jong Jansen de_Vries van_den_Berg Bakker van_Dijk Visser Smit Meijer de_Boer Mulder de_Groot Bos Vos Peters Hendriks van_Leeuwen Dekker Brouwer de_Wit Dijkstra Smits de_Graaf van_der_Meer van_der_Linden Kok Jacobs Vermeulen van_den_Heuvel van_der_Veen van_den_Broek Schouten Willems Hoekstra Koster Prins Huisman Postma Kuipers Veenstra Timmermans Groeneveld Rietveld Zonneveld Oosterhuis Hoogendoorn Terpstra Bloemendaal Ruijgrok',
      ),
      ...built(
        'van_den_ van_der_ de_',
        'Akker Bosch Brink Burg Donk Eijk Elzen Ende Geest Haar Hoek Hurk Kamp Laan Linde Meulen Nieuwenhof Oever Plas Polder Putten Rijn Sande Schaaf Straaten Veer Velde Vliet Voort Wal Weide Werf Wiel Zande Zwaan',
      ),
    ],
    short: pairs(
      'Johannes:Hans Cornelis:Kees Willem:Wim Elisabeth:Els Catharina:Trijntje Petrus:Piet Jacobus:Koos Wilhelmina:Mina Hendrik:Henk',
    ),
    phone: '+316115',
    domain: 'example',
  },
  {
    code: 'DE',
    given: words(
      'Peter Maria Michael Ursula Thomas Monika Andreas Petra Wolfgang Elisabeth Klaus Sabine Jürgen Renate Günter Helga Stefan Karin Christian Brigitte Uwe Ingrid Werner Erika Horst Andrea Frank Gisela Dieter Claudia Manfred Susanne Gerhard Gabriele Hans Christa Bernd Christine Torsten Hildegard Matthias Anna Helmut Birgit Björn Jörg Sören Käthe',
    ),
    family: [
      ...words(
        'Müller Schmidt Schneider Fischer Weber Meyer Wagner Becker Schulz Hoffmann Schäfer Koch Bauer Richter Klein Wolf Schröder Neumann Schwarz Zimmermann Braun Krüger Hofmann Hartmann Lange Schmitt Werner Schmitz Krause Meier Lehmann Schmid Schulze Maier Köhler Herrmann König Walter Mayer Huber Kaiser Fuchs Peters Lang Scholz Möller Weiß Jung Hahn Vogel Keller Günther Frank Berger Winkler Roth Beck Lorenz Baumann Franke Albrecht Schuster Simon Ludwig Böhm Winter Kraus Martin Schumacher Krämer Vogt Stein Jäger Otto Sommer Groß Seidel Heinrich Brandt Haas Schreiber Graf Dietrich Ziegler Kühn Pohl Engel Horn Busch Bergmann Voigt Sauer Arnold Wolff Pfeiffer',
      ),
      ...built(
        'Alten Birken Breiten Eichen Felden Grün Hohen Kalten Linden Neuen Ober Rosen Schön Stein Tannen Unter Wald Weiden',
        'bach berg hofer kamp mann müller rath thal brink stetter',
      ),
    ],
    short: pairs(
      'Wolfgang:Wolfi Elisabeth:Lisa Michael:Micha Susanne:Susi Christine:Tina Gerhard:Gerd Gabriele:Gabi Matthias:Matze Andreas:Andi',
    ),
    phone: '+4915115',
    domain: 'example',
  },
  {
    code: 'FR',
    given: words(
      'Jean Marie Philippe Nathalie Michel Isabelle Alain Sylvie Patrick Catherine Nicolas Françoise Christophe Valérie Pierre Christine Étienne Céline Stéphane Hélène François Aurélie Benoît Chloé Léa Noémie Loïc Maëlle',
    ),
    family: [
      ...words(
        'Martin Bernard Thomas Petit Robert Richard Durand Dubois Moreau Laurent Simon Michel Lefèvre Leroy Roux David Bertrand Morel Fournier Girard Bonnet Dupont Lambert Fontaine Rousseau Vincent Müller Lefebvre Faure Mercier Blanc Guérin Boyer Garnier Chevalier Legrand Gauthier Perrin Clément Morin Nguyen',
      ),
      ...built(
        'Beau Belle Bois Cham Cour De Fon Grand La Mont Pont Roche Vau Ville',
        'champ fort lieu mont neuve pré rive son val vière',
      ),
    ],
    short: {},
    phone: '+33639981',
    domain: 'example',
  },
  {
    code: 'PL',
    given: words(
      'Anna Piotr Maria Krzysztof Katarzyna Andrzej Małgorzata Tomasz Agnieszka Jan Barbara Paweł Ewa Michał Krystyna Marcin Elżbieta Jakub Magdalena Adam Łukasz Zofia Stanisław',
    ),
    family: [
      ...words(
        'Nowak Kowalski Wiśniewski Wójcik Kowalczyk Kamiński Lewandowski Zieliński Szymański Woźniak Dąbrowski Kozłowski Jankowski Mazur Kwiatkowski Krawczyk Kaczmarek Piotrowski Grabowski Zając Pawłowski Michalski Król Wieczorek',
      ),
      ...built(
        'Bia Dobro Gór Jabło Kos Lip Mal Nowi Olsz Pias Rud Sos Wierz Zaw',
        'cki ński wski rowski szewicz nicki bowicz',
      ),
    ],
    short: pairs('Katarzyna:Kasia Małgorzata:Gosia Magdalena:Magda Elżbieta:Ela Stanisław:Stas'),
    phone: '+4850055',
    domain: 'example',
  },
  {
    code: 'UA',
    given: words(
      'Олена Андрій Наталія Сергій Ірина Олександр Тетяна Володимир Оксана Микола Юлія Дмитро Марія Іван Галина Петро Людмила Тарас Софія Максим',
    ),
    family: [
      ...words(
        'Шевченко Коваленко Бондаренко Ткаченко Кравченко Олійник Ковальчук Поліщук Мельник Лисенко Гончаренко Савченко',
      ),
      ...built('Бонда Васи Гри Дани Зава Ко Лу Мак Не Пав Ро Сте Ти Хо Яр', 'ренко лець шин чук ньов ленко вський'),
    ],
    short: {},
    phone: '+38050555',
    domain: 'example',
  },
  {
    code: 'AE',
    given: words('محمد فاطمة أحمد عائشة علي مريم خالد نورة يوسف ليلى سعيد هند راشد سلمى ماجد رنا طارق دانة عمر حصة'),
    family: [
      ...words('الخطيب الحداد النجار القاسم الهاشمي الشامي البغدادي الزين'),
      ...built(
        'ال',
        'أنصاري بكري تميمي جابري حسيني دباغ راشدي زهراني سالم شريف صالح طائي عمري غامدي فارسي قحطاني كندي مالكي ناصر هلالي يماني',
      ),
    ],
    short: {},
    phone: '+97150555',
    domain: 'example',
  },
  {
    code: 'CN',
    given: built('伟 芳 娜 敏 静 秀 丽 强 磊 洋 艳 勇', '英 军 杰 娟 涛 明 超 霞 平 国 华 文'),
    family: words('王 李 张 刘 陈 杨 黄 赵 吴 周 徐 孙 马 朱 胡 郭 何 林'),
    short: {},
    phone: '+86139555',
    domain: 'example',
  },
];
