package knollfield.app.demo;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Random;
import java.util.Set;
import knollfield.app.vehicle.CallNote;
import knollfield.app.vehicle.Fleet;
import knollfield.app.vehicle.Renewal;
import knollfield.app.vehicle.StandingDecline;
import knollfield.app.vehicle.StoredEvidence;
import knollfield.app.vehicle.StoredReading;
import knollfield.app.vehicle.StoredTrip;
import knollfield.app.vehicle.Vehicle;
import knollfield.app.vehicle.VehicleHistory;
import knollfield.core.clock.ClockStart;
import knollfield.core.clock.Limit;
import knollfield.core.due.Condition;
import knollfield.core.due.Evidence;
import knollfield.core.due.EvidenceKind;
import knollfield.core.due.Policy;
import knollfield.core.due.UseState;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Item;
import knollfield.core.odometer.Projection.KnownTrip;
import knollfield.core.odometer.ReadingSource;
import knollfield.core.odometer.UsageClass;
import knollfield.core.units.DistanceUnit;

/** Makes the vehicles of the island, each with a life behind it; the same seed and day give the same vehicles. */
final class SkerrowVehicles {

    private static final String[] FIRST = {
        "Tamsin", "Ruan", "Jory", "Merryn", "Elowen", "Cadan", "Kerra", "Pasco", "Lowena", "Denzil", "Ysella", "Gerren",
        "Morva", "Talan", "Bryluen", "Jago", "Senara", "Petrok"
    };
    private static final String[] LAST = {
        "Orde", "Keast", "Quillet", "Pellow", "Bray", "Hocking", "Spargo", "Trewin", "Nance", "Carne", "Gluyas",
        "Rodda", "Vosper", "Angove", "Tonkin", "Hendra", "Lanyon", "Maddern"
    };
    private static final Map<String, String[]> MODELS = Map.ofEntries(
            Map.entry("CAL-16", new String[] {"Calder Dunlin 1.6", "Calder Plover 1.6"}),
            Map.entry("CAL-20D", new String[] {"Calder Drover 2.0d"}),
            Map.entry("OST-20", new String[] {"Ostry Carrier 2.0"}),
            Map.entry("OST-24V", new String[] {"Ostry Heron 2.4"}),
            Map.entry("LAM-27V", new String[] {"Lamorn Tor 2.7"}),
            Map.entry("TAV-19D", new String[] {"Tavel Marten 1.9d", "Tavel Stoat 1.9d"}),
            Map.entry("BRE-14", new String[] {"Brevet Pipit 1.4"}),
            Map.entry("HOL-12", new String[] {"Hollin Post 1.2"}),
            Map.entry("HOL-16", new String[] {"Hollin Fell 1.6"}),
            Map.entry("WIN-15", new String[] {"Windle Lark 1.5"}),
            Map.entry("SOR-22", new String[] {"Sorrel Minibus 2.2"}),
            Map.entry("KES-18", new String[] {"Kestle Wren 1.8"}),
            Map.entry("PEL-14", new String[] {"Pellan Brook 1.4"}),
            Map.entry("DRE-20D", new String[] {"Drewan Packman 2.0d"}),
            Map.entry("QUE-30V", new String[] {"Quethin Court 3.0"}),
            Map.entry("DRE-16D", new String[] {"Drewan Hawker 1.6d"}),
            Map.entry("TRE-25V", new String[] {"Treganna Down 2.5"}),
            Map.entry("MER-10", new String[] {"Merran Dipper 1.0"}),
            Map.entry("MER-15D", new String[] {"Merran Diver 1.5d"}),
            Map.entry("GOS-18", new String[] {"Gossan Ledge 1.8"}),
            Map.entry("ZEL-32V", new String[] {"Zelah Moor 3.2"}),
            Map.entry("CAR-40V", new String[] {"Cardrew Keep 4.0"}),
            Map.entry("NAN-20", new String[] {"Nanceglos Weir 2.0"}),
            Map.entry("TRW-27V", new String[] {"Trewarne Beacon 2.7"}));
    private static final String WORKSHOP = "Knollfield Garage";
    private static final int READING_STEP_DAYS = 182;

    private final Random random;
    private final LocalDate today;
    private final Map<String, EngineFamily> families = new HashMap<>();
    private final Map<String, UsageClass> classes;
    private final Set<String> registrations = new HashSet<>();

    SkerrowVehicles(long seed, LocalDate today, List<EngineFamily> families, Map<String, UsageClass> classes) {
        this.random = new Random(seed);
        this.today = today;
        families.forEach(f -> this.families.put(f.code(), f));
        this.classes = classes;
    }

    /** A vehicle of {@code fleet}, or somebody's own, of one of {@code familyCodes}. */
    VehicleHistory next(Optional<Fleet> fleet, String usageClass, String[] familyCodes, Set<Condition> conditions) {
        EngineFamily family = families.get(familyCodes[random.nextInt(familyCodes.length)]);
        UsageClass usage = java.util.Objects.requireNonNull(classes.get(usageClass));
        double rate = Math.max(
                usage.meanKmPerYear() * 0.3, usage.meanKmPerYear() + usage.sdKmPerYear() * random.nextGaussian() * 0.8);
        return life(java.util.Objects.requireNonNull(family), usage, rate, fleet, conditions, share());
    }

    /** How much of the limit the drive has used: most vehicles are clear, some close, a few beyond. */
    private double share() {
        double dice = random.nextDouble();
        if (dice < 0.66) {
            return 0.04 + 0.76 * random.nextDouble();
        } else if (dice < 0.87) {
            return 0.80 + 0.16 * random.nextDouble();
        } else if (dice < 0.95) {
            return 0.96 + 0.14 * random.nextDouble();
        }
        return -1;
    }

    /** @param used share of the limit used; negative for a history nobody knows */
    private VehicleHistory life(
            EngineFamily family,
            UsageClass usage,
            double rate,
            Optional<Fleet> fleet,
            Set<Condition> conditions,
            double used) {
        Limit limit = family.driveItem()
                .schedule()
                .map(s -> conditions.isEmpty() ? s.normal() : s.severe().orElse(s.normal()))
                .orElse(Limit.of(200_000, 180));
        double lifeYears =
                Math.min(limit.km().orElse(400_000) / rate, limit.months().orElse(240) / 12.0);
        boolean unknown = used < 0;
        double sinceRenewal = unknown ? 0 : used * lifeYears;
        double before = unknown
                ? lifeYears * (1.1 + random.nextDouble())
                : random.nextInt(3) == 0 ? 0 : 0.6 + random.nextDouble() * lifeYears;
        double ageYears = Math.max(0.6, sinceRenewal + before);
        LocalDate registered = today.minusDays(Math.round(ageYears * 365.25));
        boolean firstDrive = !unknown && before == 0;

        List<StoredReading> readings = readings(registered, ageYears, rate, usage);
        List<Renewal> renewals = new ArrayList<>();
        if (!unknown && !firstDrive) {
            LocalDate renewedOn = today.minusDays(Math.round(sinceRenewal * 365.25));
            int km = (int) Math.round(rate * before);
            boolean ours = random.nextInt(4) != 0;
            for (Item item : family.items()) {
                boolean withTheDrive = switch (item.kind()) {
                    case TIMING_BELT, TIMING_CHAIN, TENSIONER, IDLER, GUIDE -> true;
                    case WATER_PUMP ->
                        item.halfOf()
                                .map(whole -> renewals.stream()
                                        .anyMatch(r -> r.itemCode().equals(whole)))
                                .orElseGet(() -> random.nextInt(4) != 0);
                    default -> false;
                };
                if (withTheDrive) {
                    renewals.add(new Renewal(
                            item.code(),
                            renewedOn,
                            km,
                            ours ? ClockStart.Grade.DOCUMENTED : ClockStart.Grade.STATED,
                            item.part().number(),
                            ours,
                            Optional.empty(),
                            ours ? WORKSHOP : "owner"));
                }
            }
        }
        if (firstDrive) {
            family.items().stream()
                    .filter(i -> i.kind().carriesTheDrive())
                    .forEach(i -> renewals.add(new Renewal(
                            i.code(),
                            registered,
                            0,
                            ClockStart.Grade.ORIGINAL,
                            "",
                            false,
                            Optional.empty(),
                            WORKSHOP)));
        }
        String[] models = java.util.Objects.requireNonNull(MODELS.get(family.code()));
        Vehicle vehicle = new Vehicle(
                0,
                registration(),
                Optional.empty(),
                models[random.nextInt(models.length)],
                Optional.of(family.code()),
                fleet.map(Fleet::name).orElseGet(this::person),
                fleet.map(Fleet::phone).orElseGet(this::phone),
                fleet,
                usage.code(),
                registered,
                false,
                conditions,
                equipment(),
                usage.code().equals("MINIBUS") || usage.code().equals("CHILLED") ? 2 : 1,
                OptionalLong.of(Math.round(Math.max(1_500, 16_000 * Math.pow(0.86, ageYears))) * 100),
                1);
        return new VehicleHistory(vehicle, readings, renewals, List.of(), List.of());
    }

    private List<StoredReading> readings(LocalDate registered, double ageYears, double rate, UsageClass usage) {
        List<StoredReading> readings = new ArrayList<>();
        int count = Math.min(7, (int) (ageYears * 365.25 / READING_STEP_DAYS));
        LocalDate day = today.minusDays(3 + random.nextInt(60)).minusDays((long) READING_STEP_DAYS * (count - 1));
        double km = rate * java.time.temporal.ChronoUnit.DAYS.between(registered, day) / 365.25;
        int slip = random.nextInt(9) == 0 && count > 3 ? 1 + random.nextInt(count - 2) : -1;
        for (int i = 0; i < count; i++) {
            if (!day.isAfter(registered)) {
                day = day.plusDays(READING_STEP_DAYS);
                continue;
            }
            ReadingSource source = i == count - 1 && random.nextInt(3) == 0
                    ? ReadingSource.CUSTOMER
                    : i % 2 == 0 ? ReadingSource.WORKSHOP : ReadingSource.CERTIFICATE;
            if (i == slip) {
                // somebody read the trip computer in miles
                readings.add(reading(day, (int) Math.round(km / 1.609344), ReadingSource.CUSTOMER));
            } else {
                readings.add(reading(day, (int) Math.round(km), source));
            }
            day = day.plusDays(READING_STEP_DAYS);
            double step = READING_STEP_DAYS / 365.25;
            km += Math.max(
                    0, rate * step + usage.scatterKmPerRootYear() * Math.sqrt(step) * random.nextGaussian() * 0.6);
        }
        return readings;
    }

    private static StoredReading reading(LocalDate day, int km, ReadingSource source) {
        return new StoredReading(0, day, km, BigDecimal.valueOf(km), DistanceUnit.KM, source, false, WORKSHOP);
    }

    /** Belt teeth gone, engine standing in the yard. */
    VehicleHistory stopped(VehicleHistory h) {
        return found(h, EvidenceKind.BELT_FAILED, "teeth missing behind the upper cover; towed in", 1);
    }

    VehicleHistory oily(VehicleHistory h) {
        return found(h, EvidenceKind.OIL_TOP, "seen at the service, cover off", 6);
    }

    private VehicleHistory found(VehicleHistory h, EvidenceKind kind, String note, int daysAgo) {
        StoredEvidence evidence = new StoredEvidence(
                0,
                new Evidence(kind, today.minusDays(daysAgo)),
                "workshop",
                note,
                Optional.empty(),
                Optional.empty(),
                "Perran Loy");
        return new VehicleHistory(h.vehicle(), h.readings(), h.renewals(), List.of(evidence), h.trips());
    }

    /** A long journey that starts in five weeks. */
    VehicleHistory beforeTrip(VehicleHistory h) {
        KnownTrip trip = new KnownTrip(today.plusDays(36), today.plusDays(57), 9_000);
        return new VehicleHistory(
                h.vehicle(),
                h.readings(),
                h.renewals(),
                h.evidence(),
                List.of(new StoredTrip(0, trip, Optional.empty())));
    }

    /** Somebody rang; with {@code again}, a call was promised for that day. */
    VehicleHistory called(VehicleHistory h, int daysAgo, String note, LocalDate again) {
        CallNote call = new CallNote(
                0, today.minusDays(daysAgo), h.vehicle().ownerName(), note, Optional.of(again), "Morwen Hale");
        return wished(h, List.of(call), List.of());
    }

    VehicleHistory declined(VehicleHistory h, int daysAgo, String told, LocalDate until) {
        StandingDecline decline = new StandingDecline(
                0, today.minusDays(daysAgo), h.vehicle().ownerName(), told, until, Optional.empty(), "Morwen Hale");
        return wished(h, List.of(), List.of(decline));
    }

    private static VehicleHistory wished(VehicleHistory h, List<CallNote> calls, List<StandingDecline> declines) {
        return new VehicleHistory(
                h.vehicle(),
                h.readings(),
                h.renewals(),
                h.evidence(),
                h.trips(),
                List.of(),
                calls,
                declines,
                Optional.empty());
    }

    /** The same vehicle in another state, idling so many hours a year, or with a timing of its own. */
    VehicleHistory special(VehicleHistory h, UseState state, int idleHours, Optional<Policy.Own> own) {
        Vehicle changed = h.vehicle().with(state, idleHours, own, h.vehicle().version());
        return new VehicleHistory(changed, h.readings(), h.renewals(), h.evidence(), h.trips());
    }

    /** A vehicle of {@code familyCode} that has used {@code used} of its limit. */
    VehicleHistory with(String familyCode, Optional<Fleet> fleet, String usageClass, double used) {
        UsageClass usage = java.util.Objects.requireNonNull(classes.get(usageClass));
        EngineFamily family = java.util.Objects.requireNonNull(families.get(familyCode));
        return life(family, usage, usage.meanKmPerYear(), fleet, Set.of(), used);
    }

    private String registration() {
        String letters = "ABCDEFGHKLMNPRSTUVWX";
        while (true) {
            String made = "SKR %03d %s".formatted(1 + random.nextInt(999), letters.charAt(random.nextInt(20)));
            if (registrations.size() > 10_000) {
                // the short ones run out
                made += letters.charAt(random.nextInt(20));
            }
            if (registrations.add(made)) {
                return made;
            }
        }
    }

    private String person() {
        return FIRST[random.nextInt(FIRST.length)] + " " + LAST[random.nextInt(LAST.length)];
    }

    private String phone() {
        return "0555 %03d %02d".formatted(random.nextInt(1000), random.nextInt(100));
    }

    private Set<String> equipment() {
        Set<String> equipment = new HashSet<>();
        if (random.nextInt(10) < 7) {
            equipment.add("air conditioning");
        }
        if (random.nextInt(10) < 2) {
            equipment.add("top steering pump");
        }
        return equipment;
    }
}
