package knollfield.app.demo;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import knollfield.core.clock.Limit;
import knollfield.core.engine.Drive;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.RepairEstimate;
import knollfield.core.engine.Schedule;
import knollfield.core.engine.TensionerKind;
import knollfield.core.kinds.KindFamily;
import knollfield.core.kinds.Kinds;
import knollfield.core.units.DistanceUnit;

/** The engine families of the island, all invented. */
final class SkerrowFamilies {

    private SkerrowFamilies() {}

    /** Families whose book says how they are built, one of each kind; their cards are worked out from it. */
    static final List<String> KINDS =
            List.of("e01", "e02", "e03", "e04", "e05", "e06", "e07", "e08", "e09", "e10", "e11", "e12");

    static List<EngineFamily> all() {
        return Stream.concat(listed().stream(), built().stream()).toList();
    }

    /** The code under which a kind is on file. */
    static String codeOf(String kind) {
        return built().get(KINDS.indexOf(kind)).code();
    }

    private static List<EngineFamily> built() {
        return List.of(
                built("e01", "PEL-14", "Pellan 1.4", Limit.of(120_000, 72), 290_000, 5_800),
                built("e02", "DRE-20D", "Drewan 2.0 diesel", Limit.of(150_000, 96), 340_000, 6_900),
                built("e03", "QUE-30V", "Quethin 3.0 V6", Limit.of(110_000, 84), 470_000, 9_900),
                built("e04", "DRE-16D", "Drewan 1.6 diesel", Limit.of(160_000, 120), 330_000, 7_200),
                built("e05", "TRE-25V", "Treganna 2.5 V6", Limit.of(100_000, 84), 450_000, 9_400),
                built("e06", "MER-10", "Merran 1.0", Limit.of(150_000, 120), 280_000, 7_800),
                built("e07", "MER-15D", "Merran 1.5 diesel", Limit.of(140_000, 120), 320_000, 6_600),
                built("e08", "GOS-18", "Gossan 1.8", Limit.ofKm(200_000), 390_000, 11_200),
                built("e09", "ZEL-32V", "Zelah 3.2 V6", Limit.ofKm(190_000), 520_000, 14_600),
                built("e10", "CAR-40V", "Cardrew 4.0 V8", Limit.ofKm(180_000), 610_000, 17_800),
                built("e11", "NAN-20", "Nanceglos 2.0", Limit.ofKm(220_000), 380_000, 10_400),
                built("e12", "TRW-27V", "Trewarne 2.7 V6", Limit.of(120_000, 96), 460_000, 9_100));
    }

    private static EngineFamily built(
            String kind, String code, String name, Limit limit, long repairMinor, long priceMinor) {
        return KindFamily.of(
                Kinds.kind(kind).orElseThrow(),
                code,
                name,
                Interference.YES,
                Optional.of(new Schedule(limit, Optional.empty(), "Skerrow demo book", DistanceUnit.KM)),
                new RepairEstimate(repairMinor * 2 / 3, repairMinor, repairMinor * 5 / 3),
                priceMinor);
    }

    private static List<EngineFamily> listed() {
        return List.of(
                new FamilyBuilder("CAL-16", "Calder 1.6", Drive.BELT)
                        .inline(145, 24)
                        .pins("crank pin", "inlet pin", "exhaust pin")
                        .printed("130", "96")
                        .pumpInHalves()
                        .turnBack(10)
                        .tensioner(TensionerKind.SPRING_PIN, true)
                        .moveOver("tensioner spacer")
                        .plugs(1)
                        .limits(Limit.of(120_000, 72), Limit.of(70_000, 60))
                        .belt(300, true, 130, 90),
                new FamilyBuilder("CAL-20D", "Calder 2.0 diesel", Drive.BELT)
                        .diesel(141, 24)
                        .pins("crank pin", "cam pin", "fuel pump pin")
                        .tensioner(TensionerKind.HYDRAULIC_PIN, false)
                        .plugs(2)
                        .repair(340_000)
                        .limits(Limit.of(160_000, 120), Limit.of(100_000, 84))
                        .belt(330, true, 70, 120),
                new FamilyBuilder("OST-20", "Ostry 2.0", Drive.BELT)
                        .inline(153, 24)
                        .friction()
                        .pins("crank pin", "cam bar", "exhaust pin")
                        .tensioner(TensionerKind.ECCENTRIC_POINTER, true)
                        .plugs(1)
                        .repair(330_000)
                        .twoCrankBolts(40, 60)
                        .caution("The crank sprocket turns as soon as its bolt is slack.")
                        .limits(Limit.of(180_000, 120), Limit.of(110_000, 84))
                        .belt(360, true, 40, 90),
                new FamilyBuilder("OST-24V", "Ostry 2.4 V6", Drive.BELT)
                        .vee(211, 24)
                        .pins("crank pin", "left cam bar", "right cam bar")
                        .tensioner(TensionerKind.HYDRAULIC_PIN, true)
                        .noMount()
                        .printed("219", "158")
                        .moveOver("plunger bushing", "belt guide")
                        .repair(460_000)
                        .kit(9_800)
                        .limits(Limit.of(100_000, 84), Limit.of(80_000, 60))
                        .belt(380, true, 219, null),
                new FamilyBuilder("LAM-27V", "Lamorn 2.7 V6", Drive.BELT)
                        .vee(219, 24)
                        .marks()
                        .tensioner(TensionerKind.HYDRAULIC_PIN, true)
                        .repair(480_000)
                        .kit(10_600)
                        .limits(Limit.of(144_000, 96), Limit.of(96_000, 72))
                        .belt(400, true, 245, null),
                new FamilyBuilder("TAV-19D", "Tavel 1.9 diesel", Drive.BELT)
                        .diesel(141, 24)
                        .friction()
                        .pins("crank pin", "cam pin", "fuel pump pin")
                        .tensioner(TensionerKind.ECCENTRIC_POINTER, true)
                        .repair(300_000)
                        .limits(Limit.of(120_000, 60), Limit.of(90_000, 48))
                        .belt(320, true, 120, 90),
                new FamilyBuilder("BRE-14", "Brevet 1.4", Drive.BELT_IN_OIL)
                        .inline(133, 22)
                        .interference(Interference.UNKNOWN)
                        .pins("crank pin", "cam bar")
                        .tensioner(TensionerKind.SPRING_PIN, true)
                        .noMount()
                        .caution("Wrong oil swells this belt: measure its width.")
                        .limits(Limit.of(150_000, 120), Limit.of(100_000, 72))
                        .belt(420, false, 50, 90),
                new FamilyBuilder("HOL-12", "Hollin 1.2", Drive.BELT)
                        .inline(127, 20)
                        .interference(Interference.NO)
                        .marks()
                        .tensioner(TensionerKind.SPRING_PIN, true)
                        .tensionerReachable()
                        .limits(Limit.of(90_000, 72), Limit.of(60_000, 48))
                        .belt(220, true, 95, null),
                new FamilyBuilder("HOL-16", "Hollin 1.6", Drive.BELT)
                        .inline(138, 22)
                        .interference(Interference.NO)
                        .marks()
                        .tensioner(TensionerKind.FREQUENCY, true)
                        .moveOver("idler washer")
                        .limits(Limit.of(100_000, 84), Limit.of(75_000, 60))
                        .belt(250, true, 110, null),
                new FamilyBuilder("WIN-15", "Windle 1.5", Drive.BELT)
                        .inline(137, 22)
                        .pins("crank pin", "cam bar")
                        .tensioner(TensionerKind.HYDRAULIC_PIN, false)
                        .moveOver("idler washer", "belt guide")
                        .coverTorqueMissing()
                        .unreliable("the arrow on the lower cover")
                        .limits(Limit.of(105_000, 84), Limit.of(80_000, 60))
                        .belt(280, true, 167, null),
                new FamilyBuilder("SOR-22", "Sorrel 2.2", Drive.CHAIN)
                        .noMount()
                        .chain(118, 20)
                        .marks()
                        .tensioner(TensionerKind.CHAIN_RATCHET, true)
                        .repair(420_000)
                        .kit(11_800)
                        .limits(Limit.ofKm(180_000), Limit.ofKm(130_000))
                        .chainDrive(270),
                new FamilyBuilder("KES-18", "Kestle 1.8", Drive.CHAIN)
                        .noMount()
                        .chain(124, 22)
                        .marks()
                        .tensioner(TensionerKind.CHAIN_RATCHET, true)
                        .repair(380_000)
                        .kit(9_400)
                        .clearance("Inlet valves", 0.152, 0.178)
                        .clearance("Exhaust valves", 0.152, 0.178)
                        .chainDrive(240));
    }
}
