import { nameMatchKey } from './clean';
import type { DayTarget, PlainTarget } from './columns';
import type { BatchKind } from './row';

type Target = PlainTarget | DayTarget;

/**
 * Headers as people write them in English, Spanish, French and German, without case, marks, spaces and dashes
 * (common practice, no source). A word may stand for one target only.
 */
const PEOPLE: Partial<Record<Target, string>> = {
  email: `email mail emailaddr emailaddress emailid emails primaryemail personalemail homeemail workemail contactemail emailaddresses 1email email1 email2 email3 email4 email5 email6 secondaryemail otheremail
    courriel adressecourriel adressemail adressemel mel adresseelectronique correo correoelectronico correoe direcciondecorreo correoelectronico1 emailadresse mailadresse epost eposta`,
  nameEmail: `nameandemail nameemail recipient contactnameemail from to sender nametandemail nomemail`,
  mobile: `mobile telmobile mobiles cell cells cellphone cellnumber mobilephone mobilenumber mobileno phone phones phone1 phone2 phone3 phone4 phone5 phone6 phonenumber phoneno primaryphone homephone workphone
    telephone telephonenumber tel telno telnr number sms smsnumber textnumber whatsapp handy handynummer handynr mobil mobilnummer mobiltelefon telefon telefonnummer telefonnr rufnummer
    portable telephoneportable telephonemobile gsm movil celular telefono telefonomovil numerodetelefono telefonocelular numerodetelephone notel`,
  firstName: `firstname givenname first forename fname christianname preferredname prenom vorname rufname nombre primernombre nombredepila nombres`,
  lastName: `lastname surname familyname last lname secondname nom nomdefamille nachname familienname zuname apellido apellidos primerapellido`,
  fullName: `name fullname wholename contactname displayname supportername donorname membername customername donateur donatrice spender spenderin donante nomcomplet nometprenom nomprenom prenomnom nomprenoms
    namevorname vornamename vorundnachname vollername nombrecompleto nombreyapellido nombreyapellidos nombreapellidos`,
  externalId: `id ownid supporterid donorid supporterno supporternumber donorno donornumber memberid membershipid membershipnumber membershipno memberno membernumber externalid crmid recordid contactid constituentid personid accountid customerid
    identifiant numerodemembre nummer mitgliedsnummer mitgliedsnr mitglnr mitgliednr spendernummer spendernr kundennummer personennummer identificador numerodesocio numerodesocia`,
  street: `street address address1 address2 address3 addressline1 addressline2 streetaddress mailingaddress homeaddress postaladdress addressstreet addr
    adresse adresse1 adresse2 rue voie strasse strassehausnummer strasseundhausnummer anschrift calle direccion direccion1 domicilio`,
  postcode: `postcode postalcode zip zipcode zippostal zippostalcode postcodezip eircode codepostal cp plz postleitzahl codigopostal`,
  city: `city town citytown suburb locality village ville commune ort stadt wohnort ciudad localidad poblacion municipio`,
  region: `region st state province county stateprovince department departement bundesland kanton provincia estado comunidad`,
  country: `country countrycode nation pays land pais staat`,
  tags: `tags tag labels label groups group gruppe gruppen groupe groupes grupo grupos keywords categories category interests etiquetas etiquettes schlagworte schlagwort kategorien motscles`,
  stage: `standing rosterstatus stage`,
  signedOn: `signed signedon signeddate datesigned signupdate signedup signedupon dateofsignup dateofconsent consentdate consentedon agreedon dateagreed optindate optintime optedin
    optedinon joinedon datejoined subscribedon confirmedon confirmtime dateinscription inscritle dateconsentement anmeldedatum angemeldetam einwilligungam fechadealta fechadeconsentimiento`,
  signedWords: `consenttext consentwording consentwords agreedwords wording statement consentstatement textedeconsentement einwilligungstext textodeconsentimiento`,
};

const REFUSALS: Partial<Record<Target, string>> = {
  status: `status state emailstatus subscriptionstatus subscription result reason cause type event deliverystatus bouncetype optoutreason statut etat raison zustand grund estado motivo situacion`,
};

const GIFTS: Partial<Record<Target, string>> = {
  amount: `amount giftamount donationamount donation gift sum total value paid gross montant montantdudon montantdon don somme betrag spende spendenbetrag summe importe monto donativo cantidad donacion`,
  currency: `currency currencycode cur devise wahrung waehrung moneda divisa`,
  givenOn: `date giftdate donationdate givenon dateofgift received receiveddate datereceived paidon paymentdate transactiondate created createdat datedon datedudon datededon buchungstag buchungsdatum datum spendendatum
    eingangam fecha fechadedonacion fechadonativo fechadelpago`,
  giftId: `giftid donationid transactionid transaction paymentid receipt receiptnumber receiptno reference ref referencenumber iddon idtransaction numerodetransaction belegnummer
    transaktionsnummer spendenid idtransaccion referencia numeroderecibo`,
  appeal: `appeal appealcode campaign campaigncode source sourcecode fund motif campagne codecampagne kampagne aktion zweck verwendungszweck campana codigodecampana`,
  rhythm: `recurring frequency rhythm type gifttype donationtype regular period recurrence frequence periodicite turnus rhythmus haufigkeit frecuencia periodicidad tipo`,
};

function tableOf(...parts: Partial<Record<Target, string>>[]): Map<string, Target> {
  const table = new Map<string, Target>();
  for (const part of parts) {
    for (const [target, words] of Object.entries(part))
      for (const word of words.split(/\s+/)) table.set(word, target as Target);
  }
  return table;
}

/** Later parts win: under gifts, "type" is the rhythm and "date" the day of the gift. */
const TABLES: Record<BatchKind, Map<string, Target>> = {
  people: tableOf(PEOPLE),
  here: tableOf(PEOPLE),
  refusals: tableOf(PEOPLE, REFUSALS),
  gifts: tableOf(PEOPLE, GIFTS),
};

/** No column has a longer name. */
const LONGEST = 500;

/**
 * What a header names, in a file of this kind; null where it is no common wording. `Phone (home)` is read as
 * `Phone`.
 */
export function targetOf(header: string, what: BatchKind): Target | null {
  const table = TABLES[what];
  if (header.length > LONGEST) return null;
  const bare = header.replace(/\([^)]{0,80}\)|\[[^\]]{0,80}\]|[*:?#]/g, ' ');
  const key = (text: string) => nameMatchKey(text).replaceAll('ß', 'ss');
  const known = table.get(key(header)) ?? table.get(key(bare));
  if (known) return known;
  // Sheets for readers of two languages name a column twice: "Prénom / First name".
  const sides = bare.split('/').map((side) => table.get(key(side)) ?? null);
  return sides.length === 2 && sides[0] === sides[1] ? (sides[0] ?? null) : null;
}
