package knollfield.app.importing;

import static knollfield.app.importing.ImportField.BELT_RENEWED_ODOMETER;
import static knollfield.app.importing.ImportField.BELT_RENEWED_ON;
import static knollfield.app.importing.ImportField.CONDITIONS;
import static knollfield.app.importing.ImportField.DATE;
import static knollfield.app.importing.ImportField.ENGINE_FAMILY;
import static knollfield.app.importing.ImportField.ENGINE_LETTERS;
import static knollfield.app.importing.ImportField.EQUIPMENT;
import static knollfield.app.importing.ImportField.FIRST_REGISTERED;
import static knollfield.app.importing.ImportField.FLEET;
import static knollfield.app.importing.ImportField.GRADE;
import static knollfield.app.importing.ImportField.ITEM;
import static knollfield.app.importing.ImportField.LEAD_DAYS;
import static knollfield.app.importing.ImportField.LIFE;
import static knollfield.app.importing.ImportField.MAKE;
import static knollfield.app.importing.ImportField.MAKE_MODEL;
import static knollfield.app.importing.ImportField.ODOMETER;
import static knollfield.app.importing.ImportField.ODOMETER_DATE;
import static knollfield.app.importing.ImportField.ODOMETER_UNIT;
import static knollfield.app.importing.ImportField.OWNER;
import static knollfield.app.importing.ImportField.PART_NAME;
import static knollfield.app.importing.ImportField.PART_NUMBER;
import static knollfield.app.importing.ImportField.PERSON;
import static knollfield.app.importing.ImportField.PHONE;
import static knollfield.app.importing.ImportField.PRICE;
import static knollfield.app.importing.ImportField.REGISTRATION;
import static knollfield.app.importing.ImportField.ROLE;
import static knollfield.app.importing.ImportField.SIGN_IN;
import static knollfield.app.importing.ImportField.SKILLS;
import static knollfield.app.importing.ImportField.SOURCE;
import static knollfield.app.importing.ImportField.USAGE;
import static knollfield.app.importing.ImportField.VIN;
import static knollfield.app.importing.ImportField.WORKING_DAYS;

import java.util.List;
import java.util.Set;

/** What a list holds. */
enum ImportKind {
    VEHICLES(
            "vehicles",
            Set.of(REGISTRATION, MAKE_MODEL, FIRST_REGISTERED),
            List.of(
                    REGISTRATION,
                    MAKE_MODEL,
                    MAKE,
                    OWNER,
                    PHONE,
                    FIRST_REGISTERED,
                    USAGE,
                    ENGINE_FAMILY,
                    ENGINE_LETTERS,
                    VIN,
                    FLEET,
                    ODOMETER,
                    ODOMETER_UNIT,
                    ODOMETER_DATE,
                    BELT_RENEWED_ON,
                    BELT_RENEWED_ODOMETER,
                    CONDITIONS,
                    EQUIPMENT)),
    READINGS(
            "readings",
            Set.of(REGISTRATION, DATE, ODOMETER),
            List.of(REGISTRATION, DATE, ODOMETER, ODOMETER_UNIT, SOURCE)),
    RENEWALS(
            "renewals",
            Set.of(REGISTRATION, ITEM, DATE, ODOMETER),
            List.of(REGISTRATION, ITEM, DATE, ODOMETER, ODOMETER_UNIT, PART_NUMBER)),
    PARTS(
            "parts",
            Set.of(PART_NUMBER, ENGINE_FAMILY, ITEM, PRICE),
            List.of(PART_NUMBER, PART_NAME, ENGINE_FAMILY, ITEM, PRICE, GRADE, LIFE, LEAD_DAYS)),
    PEOPLE("people", Set.of(PERSON, SIGN_IN), List.of(PERSON, SIGN_IN, ROLE, SKILLS, WORKING_DAYS, FLEET));

    private final String words;
    private final Set<ImportField> needed;
    private final List<ImportField> fields;

    ImportKind(String words, Set<ImportField> needed, List<ImportField> fields) {
        this.words = words;
        this.needed = needed;
        this.fields = fields;
    }

    String words() {
        return words;
    }

    /** Fields without which no line can be taken. */
    Set<ImportField> needed() {
        return needed;
    }

    /** Fields it may have, in the order in which they are shown. */
    List<ImportField> fields() {
        return fields;
    }
}
