package knollfield.app.importing;

import java.text.Normalizer;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** What a column of a list may hold. */
enum ImportField {
    REGISTRATION(
            "Registration",
            "registration|reg|reg no|reg number|registration number|plate|number plate|licence plate|license plate|kennzeichen"
                    + "|kfz kennzeichen|amtl kennzeichen|amtliches kennzeichen|immatriculation|plaque|matricula|targa"
                    + "|kenteken|regnr|reg nr|registreringsnummer|rekisterinumero|fahrzeug kennzeichen|vrm"),
    VIN(
            "VIN",
            "vin|chassis|chassis no|chassis number|vin number|fin|fahrgestellnummer|fgst nr|fahrgestell nr|numero de serie|bastidor|telaio"),
    MAKE_MODEL(
            "Make and model",
            "make model|make and model|vehicle|vehicle type|model|modell|fahrzeug|typ|type|marke modell|fahrzeugtyp|modele|modelo|modello|description|bezeichnung"),
    MAKE("Make, before the model", "make|manufacturer|marke|hersteller|marque|marca|merk"),
    OWNER(
            "Owner",
            "owner|owner name|customer|customer name|client|name|kunde|halter|kundenname|besitzer|proprietaire|cliente|proprietario|eigenaar|keeper"),
    PHONE(
            "Phone",
            "phone|telephone|tel|mobile|phone number|telefon|handy|mobil|telefonnummer|tel nr|telefono|telefoon|portable"),
    USAGE("Usage class", "usage|usage class|use|nutzung|verwendung|einsatz|utilisation|uso"),
    FIRST_REGISTERED(
            "First registered",
            "first registered|first registration|date of first registration|registered|registered on|erstzulassung|ez|erstzul"
                    + "|zulassung|1ere immatriculation|premiere immatriculation|mise en circulation|date of registration|reg date|first reg"),
    ENGINE_FAMILY("Engine family", "engine family|family|engine|motor|moteur|motore"),
    ENGINE_LETTERS(
            "Engine letters",
            "engine letters|engine code|engine no|engine number|motorcode|motorkennbuchstabe|mkb|code moteur|codice motore"),
    FLEET("Fleet", "fleet|fleet name|flotte|fuhrpark|company|firma|flotta|flota"),
    CONDITIONS("Hard use", "conditions|hard use"),
    EQUIPMENT("Equipment", "equipment|ausstattung"),
    ODOMETER(
            "Odometer",
            "odometer|mileage|km|kms|miles|km stand|kilometerstand|kilometer|tacho|tachostand|laufleistung|kilometrage|odo"
                    + "|odometer reading|reading|current mileage|last mileage|kilometros|chilometri|stand"),
    ODOMETER_UNIT("Odometer unit", "odometer unit|unit|einheit|unite"),
    ODOMETER_DATE(
            "Odometer read on",
            "odometer date|read on|reading date|date of reading|mileage date|ablesedatum|km datum|stand vom|datum km stand"
                    + "|date|datum|last visit|last seen|letzter besuch|fecha|data"),
    BELT_RENEWED_ON(
            "Belt renewed on",
            "belt renewed on|belt renewed|belt date|timing belt date|belt changed|belt changed on|timing belt changed|zahnriemen datum"
                    + "|zahnriemen|zahnriemenwechsel|zr gewechselt|zr datum|date courroie|cambelt date|cambelt"),
    BELT_RENEWED_ODOMETER(
            "Belt renewed at",
            "belt renewed odometer|belt renewed at|belt odometer|belt km|belt mileage|timing belt km|zahnriemen km|zr km"
                    + "|zahnriemen bei km|km courroie|cambelt mileage|cambelt miles"),
    DATE(
            "Date",
            "date|read on|datum|reading date|renewed on|date of reading|fecha|data|dato|day|ablesedatum|done on|fitted on"),
    SOURCE("Source", "source|quelle|read by"),
    ITEM("Item renewed", "item|part renewed|work|renewed|teil|bauteil|position|arbeit|piece"),
    PART_NUMBER(
            "Part number",
            "part number|part no|part|number|article|article number|artikelnummer|artikel nr|art nr|teilenummer|sku|reference|ref|numero|codigo"),
    PART_NAME("Part name", "part name|name|description|bezeichnung|designation|text|benennung"),
    GRADE("Grade", "grade|quality|qualitat"),
    PRICE(
            "Price",
            "price|unit price|net price|cost|preis|vk|vk netto|preis netto|einzelpreis|listenpreis|prix|precio|prezzo|list price"),
    LIFE("Expected life", "expected km|life|life km|lebensdauer"),
    LEAD_DAYS("Days to get it", "lead days|lead time|lieferzeit|delivery days|days"),
    PERSON(
            "Name of the person",
            "name of the person|person|employee|staff|mitarbeiter|mechanic|technician|monteur|name"),
    SIGN_IN(
            "Signs in as",
            "signs in as|sign in|sign in name|user|user name|username|login|benutzer|initials|kurzzeichen"),
    ROLE("Role", "role|position|rolle|funktion|job"),
    SKILLS("Works on", "works on|skills|kenntnisse"),
    WORKING_DAYS("Working days", "working days|days|arbeitstage|tage");

    private final String words;
    private final List<String> names;

    ImportField(String words, String names) {
        this.words = words;
        this.names = Arrays.asList(names.split("\\|"));
    }

    /** As it is called on the screen. */
    String words() {
        return words;
    }

    /** How a template shows it filled. */
    String example() {
        return switch (this) {
            case REGISTRATION -> "ABC 123";
            case VIN, ENGINE_FAMILY, ENGINE_LETTERS, FLEET, CONDITIONS, EQUIPMENT, SOURCE, MAKE, LIFE -> "";
            case MAKE_MODEL -> "maker and model";
            case OWNER -> "name of the owner";
            case PHONE -> "0555 1234";
            case USAGE -> "private";
            case FIRST_REGISTERED -> "2019-04-30";
            case ODOMETER -> "64785";
            case ODOMETER_UNIT -> "km";
            case ODOMETER_DATE, DATE -> "2026-11-03";
            case BELT_RENEWED_ON -> "2023-05-16";
            case BELT_RENEWED_ODOMETER -> "41200";
            case ITEM -> "timing belt";
            case PART_NUMBER -> "AB-1234";
            case PART_NAME -> "Timing belt";
            case GRADE -> "original";
            case PRICE -> "49.50";
            case LEAD_DAYS -> "2";
            case PERSON -> "name of the person";
            case SIGN_IN -> "short name";
            case ROLE -> "technician";
            case SKILLS -> "belt; chain";
            case WORKING_DAYS -> "Mon; Tue; Wed; Thu; Fri";
        };
    }

    /** How well a column's heading says this field: 0 not at all, 1 is its name; unit words in brackets are left aside. */
    double likeness(String heading) {
        String plain = plain(heading);
        if (plain.isEmpty()) {
            return 0;
        }
        if (plain.equals(plain(name())) || plain.equals(plain(words))) {
            return 1.2;
        }
        double best = 0;
        Set<String> said = new HashSet<>(Arrays.asList(plain.split(" ")));
        for (int i = 0; i < names.size(); i++) {
            String name = names.get(i);
            if (plain.equals(name)) {
                // an earlier name is the better one where two fields share a word
                best = Math.max(best, 1 - i * 0.002);
            } else if (said.containsAll(Arrays.asList(name.split(" ")))) {
                best = Math.max(best, 0.5 + 0.4 * name.length() / plain.length());
            }
        }
        return best;
    }

    /** Lower case, without accents, signs and what stands in brackets. */
    static String plain(String heading) {
        return Normalizer.normalize(heading.replaceAll("[(\\[].*?[)\\]]", " "), Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "")
                .replace("ß", "ss")
                .toLowerCase(Locale.ROOT)
                .replaceAll("[^\\p{L}\\d]+", " ")
                .strip();
    }
}
