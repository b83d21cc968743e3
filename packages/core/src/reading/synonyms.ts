import { plainName } from './plain-name';

/*
 * A line for a group of languages: English; German, Dutch; French, Spanish, Italian, Portuguese, Romanian; Swedish,
 * Danish, Norwegian, Finnish; Polish, Czech, Hungarian; Turkish; Russian, Ukrainian; Greek; Japanese, Chinese, Korean.
 */

const WHOLE_NAME = words(
  'name fullname yourname contactname contactperson contact customername clientname attendeename',
  'ihrname vollername vorundnachname ansprechpartner naam uwnaam jenaam volledigenaam voorenachternaam contactpersoon',
  'nom nomcomplet nometprenom votrenom nombrecompleto nombreyapellidos sunombre nomecompleto nomeecognome iltuonome seunome numecomplet',
  'namn fornamnochefternamn dittnamn navn fuldenavn fulltnavn ditnavn nimi kokonimi',
  'imieinazwisko jmenoaprijmeni celejmeno nev teljesnev',
  'adsoyad adisoyadi adinizsoyadiniz isimsoyisim',
  'фио полноеимя вашеимя имяифамилия пiб',
  'ονοματεπωνυμο',
  '氏名 お名前 名前 姓名 您的姓名 성함 성명 이름',
);

const FIRST_NAME = words(
  'first firstname fname given givenname givennames forename christianname',
  'vorname rufname voornaam roepnaam',
  'prenom votreprenom nombre nombres primernombre nome primeironome seuprimeironome prenume',
  'fornamn tilltalsnamn fornavn etunimi',
  'imie jmeno krestnijmeno keresztnev utonev',
  'ad adi adiniz isim isminiz',
  'имя імя',
  'ονομα',
  '名 名字 이름',
);

const LAST_NAME = words(
  'last lastname lname family familyname surname secondname',
  'nachname familienname zuname achternaam familienaam',
  'nom nomdefamille apellido apellidos cognome sobrenome apelido ultimonome nume numedefamilie',
  'efternamn slaktnamn efternavn etternavn sukunimi',
  'nazwisko prijmeni vezeteknev csaladnev',
  'soyad soyadi soyadiniz soyisim',
  'фамилия прізвище',
  'επωνυμο επιθετο',
  '姓 姓氏 성 성씨',
);

const EMAIL = words(
  'email mail emailaddress workemail businessemail youremail useremail mailaddress emailid',
  'emailadresse mailadresse epostadresse emailadres mailadres',
  'courriel adresseemail adressemail adressecourriel correo correoelectronico direcciondecorreo indirizzoemail postaelettronica enderecodeemail correioeletronico adresadeemail',
  'epost epostadress sahkoposti sahkopostiosoite',
  'adresemail adresemailowy emailova emailovaadresa emailcim',
  'eposta epostaadresi epostaadresiniz',
  'почта электроннаяпочта эльпочта имейл електроннапошта',
  'ηλεκτρονικοταχυδρομειο',
  'メール メールアドレス 邮箱 电子邮箱 电子邮件 郵箱 이메일 메일',
);

const PHONE = words(
  'phone tel telephone cell mobile phonenumber phoneno mobilenumber telephonenumber contactnumber cellphone yourphone',
  'telefon telefonnummer rufnummer mobil mobilnummer handy handynummer telefoon telefoonnummer mobiel gsm telnr',
  'telephoneportable numerodetelephone portable mobile telefono numerodetelefono movil celular cellulare numeroditelefono telemovel telefone numardetelefon',
  'mobiltelefon mobilnummer telefonnr puhelin puhelinnumero matkapuhelin',
  'numertelefonu komorka telefonnicislo mobil telefonszam',
  'telefonnumarasi telefonnumaraniz ceptelefonu',
  'телефон номертелефона мобильныйтелефон номертелефону',
  'τηλεφωνο κινητο',
  '電話 電話番号 电话 电话号码 手机 手机号 手机号码 전화번호 휴대폰 연락처',
);

const JOB = words(
  'job jobtitle title role position function occupation jobrole profession',
  'funktion beruf stelle tatigkeit berufsbezeichnung functie functietitel beroep',
  'fonction poste profession metier cargo puesto ocupacion ruolo posizione mansione professione funcao functia',
  'befattning yrke titel roll stilling jobtitel ammatti tehtavanimike',
  'stanowisko zawod pozice funkce beosztas munkakor',
  'unvan gorev pozisyon meslek',
  'должность посада',
  'θεση επαγγελμα',
  '役職 職種 职位 职务 职业 직책 직급 직위',
);

const COUNTRY = words(
  'country nation countrycode countryofresidence',
  'land staat landcode',
  'pays paysderesidence pais paese nazione tara',
  'maa',
  'kraj panstwo zeme stat orszag',
  'ulke',
  'страна країна',
  'χωρα',
  '国 国名 国家 國家 나라 국가',
);

const COMPANY = words(
  'company companyname organisation organization organisationname organizationname firm business businessname employer school institution institute',
  'firma firmenname unternehmen unternehmensname betrieb organisation schule bedrijf bedrijfsnaam organisatie werkgever',
  'entreprise societe organisme nomdelasociete nomdelentreprise raisonsociale ecole empresa nombredelaempresa organizacion azienda nomeazienda societa ragionesociale nomedaempresa organizacao companie',
  'foretag foretagsnamn organisation skola virksomhed virksomhedsnavn firmanavn bedrift selskap yritys yrityksennimi',
  'nazwafirmy przedsiebiorstwo organizacja nazevfirmy spolecnost ceg cegnev',
  'sirket sirketadi kurum',
  'компания организация названиекомпании компанія',
  'εταιρεια επιχειρηση',
  '会社 会社名 企業名 貴社名 公司 公司名称 公司名稱 单位 회사 회사명 소속',
);

const MESSAGE = words(
  'message yourmessage msg comment comments note notes question questions enquiry yourenquiry inquiry remarks description details body',
  'anything anythingelse additionalinformation help project request howcanwehelp howcanwehelpyou whatcanwedoforyou tellusmore',
  'nachricht ihrenachricht anfrage ihreanfrage bemerkung bemerkungen mitteilung anliegen kommentar frage wiekonnenwirihnenhelfen bericht uwbericht opmerking opmerkingen vraag toelichting waarmeekunnenwijuhelpen waarmeekunnenweuhelpen',
  'messages votremessage commentaire commentaires demande votredemande commentpouvonsnousvousaider mensaje sumensaje comentario comentarios consulta enquepodemosayudarle enquepodemosayudarte messaggio iltuomessaggio richiesta domanda comepossiamoaiutarti mensagem comopodemosajudar mesaj mesajul',
  'meddelande ditt meddelande fraga besked meddelelse spørgsmal melding hvadkanvihjælpemed hvakanvihjelpemed vadkanvihjalpadigmed viesti viestisi kysymys',
  'wiadomosc tresc trescwiadomosci zapytanie wczymmozemypomoc zprava dotaz uzenet',
  'mesajiniz sorunuz aciklama',
  'сообщение вопрос комментарий повідомлення',
  'μηνυμα',
  'お問い合わせ お問い合わせ内容 ご要望 メッセージ 留言 留言内容 咨询内容 备注 문의 문의내용 내용 메시지',
);

const VALUE = words(
  'budget amount value price worth total sum yourbudget',
  'betrag wert preis bedrag waarde prijs',
  'montant prix importe presupuesto importo prezzo valor orcamento buget',
  'belopp beløb budsjett hinta',
  'kwota rozpocet castka',
  'butce tutar',
  'бюджет сумма',
  '予算 预算 金额 예산',
);

const PEOPLE_FIRST = [...FIRST_NAME, ...WHOLE_NAME];

/** What forms in several languages call the built-in fields, plain; see `plainName`. */
export const SYNONYMS: Readonly<Record<string, readonly string[]>> = {
  'contact first_name': PEOPLE_FIRST,
  'contact last_name': [...LAST_NAME, ...WHOLE_NAME],
  'contact full_name': WHOLE_NAME,
  'contact email': EMAIL,
  'contact phone': PHONE,
  'contact job_title': JOB,
  'contact country': COUNTRY,
  'company name': COMPANY,
  'company domain': [...EMAIL, ...words('website web url site homepage')],
  'company website': words(
    'website web url site homepage webseite siteweb sitio webadres paginaweb sitoweb hemsida hjemmeside',
  ),
  'company phone': words('companyphone officephone switchboard'),
  'company country': COUNTRY,
  'lead name': [...WHOLE_NAME, 'nombre', 'caller'],
  'lead email': EMAIL,
  'lead phone': PHONE,
  'lead company_name': COMPANY,
  'lead message': MESSAGE,
  'deal message': MESSAGE,
  'deal value': VALUE,
};

/** What a part of a person’s name is called, and the whole of it; a word may be both. */
export const NAME_WORDS = { first: new Set(FIRST_NAME), last: new Set(LAST_NAME), whole: new Set(WHOLE_NAME) } as const;

/** What means the whole of a person’s name, where no other part of it comes. */
export const WHOLE_NAMES: ReadonlySet<string> = new Set([...WHOLE_NAME, 'nombre', 'nome']);

/** What stands in questions beside what they ask for, in several languages. */
export const FILLERS: ReadonlySet<string> = new Set(
  words(
    's hello hi the your you of a an is are what whats which do does for to in please tell us we can may how and or at on with by be who whom where there my our i me about so here this that enter give work write reach should know want would like',
    'de het een uw je jouw van der die das den dem ihr ihre ihren wie lautet ist sind bitte und oder bei wat welke waar voor met wij u',
    'le la les l d du des votre vos ton est quel quelle quels veuillez et ou el los las su sus tu cual cuales es un una y o il lo gli suo sua suoi qual quale e o os as seu sua da do em',
    'din ditt dina er dit deres vad hvad hva och og ja',
    'twoj twoja twoje jaki jakie jest vas vase vasa jaky jake',
    'ваш ваша ваше какой как',
  ),
);

function words(...lines: string[]): string[] {
  return [...new Set(lines.flatMap((line) => line.split(' ').map(plainName)))];
}
