/** What forms in several languages call the built-in fields, in small letters without spaces and punctuation. */
export const SYNONYMS: Readonly<Record<string, readonly string[]>> = {
  'contact first_name': list(
    'first firstname fname given givenname forename voornaam vorname prenom prénom nombre nome fornavn förnamn name fullname yourname naam',
  ),
  'contact last_name': list(
    'last lastname lname family familyname surname achternaam nachname familienname nom nomdefamille apellido apellidos cognome sobrenome etternavn efternamn name fullname yourname naam',
  ),
  'contact full_name': list(
    'name fullname yourname contactname contactperson contact naam uwnaam volledigenaam ihrname nomcomplet nombrecompleto nomecompleto',
  ),
  'contact email': list(
    'email mail emailaddress workemail businessemail emailadres epost epostadresse courriel correo correoelectronico adresseemail mailadresse',
  ),
  'contact phone': list(
    'phone tel telephone telefon telefoon telefoonnummer telefonnummer mobile mobil mobiel cell phonenumber mobilenumber gsm handy telefono teléfono téléphone portable',
  ),
  'contact job_title': list('job jobtitle title role position function functie beruf fonction cargo puesto stelle'),
  'contact country': countryWords(),
  'company name': list(
    'company companyname organisation organization firm business employer school bedrijf bedrijfsnaam firma firmenname unternehmen entreprise societe société empresa azienda institution',
  ),
  'company domain': list(
    'email mail emailaddress workemail businessemail emailadres epost courriel correo website web url site homepage',
  ),
  'company website': list('website web url site homepage webseite siteweb sitio webadres'),
  'company phone': list('companyphone officephone switchboard'),
  'company country': countryWords(),
  'lead name': list('name fullname yourname contactname contact naam uwnaam ihrname nom nombre caller'),
  'lead email': list('email mail emailaddress workemail emailadres epost courriel correo'),
  'lead phone': list('phone tel telephone telefon telefoon mobile mobil mobiel cell phonenumber'),
  'lead company_name': list(
    'company companyname organisation organization firm business school bedrijf firma unternehmen entreprise empresa',
  ),
  'lead message': messageWords(),
  'deal message': messageWords(),
  'deal value': list('budget amount value price worth bedrag betrag montant importe sum total waarde wert'),
};

function countryWords(): string[] {
  return list('country land pays pais país paese nation countrycode');
}

function messageWords(): string[] {
  return list(
    'message comment comments note notes question enquiry inquiry remarks description details bericht opmerking opmerkingen vraag nachricht anfrage bemerkung commentaire mensaje comentario anythingelse',
  );
}

function list(words: string): string[] {
  return words.split(' ');
}
