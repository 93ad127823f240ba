package knollfield.core.kinds;

import static knollfield.core.kinds.Draft.angle;
import static knollfield.core.kinds.Draft.loop;
import static knollfield.core.kinds.Draft.nipped;
import static knollfield.core.kinds.Draft.pinned;
import static knollfield.core.kinds.Draft.set;
import static knollfield.core.kinds.Draft.torque;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import knollfield.core.engine.Drive;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Assembly.Kind;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Joint.Moment;
import knollfield.core.engine.build.Look;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.build.Shaft;
import knollfield.core.engine.build.Turner;
import knollfield.core.engine.build.Wheel;

/** Kinds that a belt drives. */
final class BeltKinds {

    private static final String POISON = "Hot coolant scalds; it poisons animals.";

    private BeltKinds() {}

    static Stream<knollfield.core.kinds.Kind> all() {
        return Stream.of(
                new knollfield.core.kinds.Kind(
                        "e01", "Keyed four, one cam, timed auxiliary shaft, set by twist", keyedFour()),
                new knollfield.core.kinds.Kind(
                        "e02",
                        "Diesel, crank wheel held by friction, floating wheels, pins in three places",
                        frictionDiesel()),
                new knollfield.core.kinds.Kind("e03", "V six by seven marks, hydraulic tensioner", sevenMarks()),
                new knollfield.core.kinds.Kind(
                        "e04",
                        "Twin cam diesel, loose cam wheels with a holder, eccentric with pointer",
                        looseWheels()),
                new knollfield.core.kinds.Kind("e05", "V six timed by own paint", paintTransfer()),
                new knollfield.core.kinds.Kind("e06", "Belt in oil, three cylinders", beltInOil()),
                new knollfield.core.kinds.Kind(
                        "e07", "Diesel by two pins, mount and covers on before the last angle", twoPins()),
                new knollfield.core.kinds.Kind("e12", "V six, pump-led, the belt goes back or not", pumpLed()));
    }

    private static Build keyedFour() {
        return new Draft()
                .cam("cam", "Cam")
                .shaft("aux", "Auxiliary shaft", Shaft.Role.AUXILIARY, Shaft.WhenFree.STAYS)
                .wheel("crankw", "Crank wheel", "crank", Wheel.Fit.KEYED, "")
                .wheel("auxw", "Auxiliary wheel", "aux", Wheel.Fit.KEYED, "")
                .wheel("camw", "Cam wheel", "cam", Wheel.Fit.KEYED, "")
                .position("top", "First cylinder at top", 0)
                .part("abelt", "Accessory belt", Kind.ACCESSORY_DRIVE)
                .under("pulley", "Crank pulley", Kind.PULLEY)
                .under("lower", "Lower cover", Kind.COVER)
                .part("upper", "Upper cover", Kind.COVER)
                .part("cap", "Rotor cap", Kind.COVER)
                .part("tens", "Tensioner", Kind.TENSIONER)
                .before("abelt° > pulley > lower > belt; upper° > belt+tens; belt > tens; cap°")
                .joint("lower", "Lower cover", torque(8.5), j -> j.bolts(4).reachedPast("pulley"))
                .joint("pulley", "Crank pulley", torque(20), j -> j.bolts(4))
                .joint(
                        "tens",
                        "Tensioner nut",
                        torque(45, Moment.TENSIONED, Moment.TURNED),
                        j -> j.critical().loop("belt"))
                .loop(loop(
                        "belt",
                        "Timing belt",
                        Drive.BELT,
                        121,
                        "top",
                        List.of("crank", "aux", "cam"),
                        List.of("crankw", "auxw", "tens", "camw"),
                        set("tens", TensionerKind.TWIST, false),
                        Loop.LetOff.RELEASED,
                        List.of("tens"),
                        List.of("twist")))
                .mark("cam-mark", "Cam mark", List.of("belt"), "top", "upper")
                .markAgainst("pulley-mark", "Pulley mark to pointer", "belt", "top", "pulley", "lower")
                .mark("rotor", "Rotor to its notch", List.of("belt"), "top", "cap")
                .window("twist", "Twist of the longest run", "belt", 80, 100, "° of twist", "upper")
                .turner("crankbolt", "the crank wheel's bolt", Turner.Kind.STAYS, "")
                .renews("belt", "belt")
                .renews("tens", "tens")
                .renews("abelt", "abelt")
                .build();
    }

    private static Build frictionDiesel() {
        return new Draft()
                .shaft("cam", "Cam", Shaft.Role.CAM, Shaft.WhenFree.ROLLS)
                .shaft("pump", "Injection pump", Shaft.Role.INJECTION_PUMP, Shaft.WhenFree.ROLLS)
                .wheel("crankw", "Crank wheel", "crank", Wheel.Fit.FRICTION, "crank")
                .wheel("camw", "Cam wheel", "cam", Wheel.Fit.FLOATING, "camw")
                .wheel("pumpw", "Pump wheel", "pump", Wheel.Fit.FLOATING, "pumpw")
                .position("top", "First cylinder at top", 0)
                .part("abelt", "Accessory belt", Kind.ACCESSORY_DRIVE)
                .under("damper", "Crank damper", Kind.PULLEY)
                .under("lower", "Lower cover", Kind.COVER)
                .part("upper", "Upper cover", Kind.COVER)
                .under("starter", "Starter", Kind.ACCESSORY)
                .under("plug", "Plug of the crank pin's hole", Kind.PLUG)
                .part("tens", "Tensioner", Kind.TENSIONER)
                .part("idler", "Idler", Kind.IDLER)
                .before("abelt° > damper° > lower > belt; upper° > belt; belt > tens+idler; starter; plug")
                .joint(
                        "crank",
                        "Crank bolt",
                        List.of(
                                torque(120, Moment.TENSIONED, Moment.TURNED),
                                angle(90, Moment.TENSIONED, Moment.TURNED)),
                        j -> j.holds("damper", "crankw")
                                .critical()
                                .fasteners("crank")
                                .heldBy(Joint.HeldBy.HARDWARE, "rlock")
                                .pinned("cpin", "kpin", "ppin")
                                .loop("belt"))
                .joint(
                        "camw",
                        "Cam wheel bolts",
                        torque(25, Moment.TENSIONED, Moment.TURNED),
                        j -> j.holds("camw")
                                .bolts(3)
                                .critical()
                                .heldBy(Joint.HeldBy.COUNTER_HOLDER)
                                .pinned("cpin", "kpin", "ppin")
                                .loop("belt"))
                .joint(
                        "pumpw",
                        "Pump wheel bolts",
                        torque(25, Moment.TENSIONED, Moment.TURNED),
                        j -> j.holds("pumpw")
                                .bolts(3)
                                .critical()
                                .heldBy(Joint.HeldBy.COUNTER_HOLDER)
                                .pinned("cpin", "kpin", "ppin")
                                .loop("belt"))
                .joint(
                        "tens",
                        "Tensioner nut",
                        List.of(nipped(Moment.TENSIONED, Moment.TURNED), torque(50, Moment.SET_AGAIN, Moment.RAN)),
                        j -> j.reachedPast("lower").loop("belt"))
                .joint("idler", "Idler bolt", torque(45), j -> j)
                .joint("starter", "Starter", torque(35), j -> j.bolts(3))
                .joint("plug", "Plug", torque(20), j -> j)
                .loop(loop(
                        "belt",
                        "Timing belt",
                        Drive.BELT,
                        141,
                        "top",
                        List.of("crank", "cam", "pump"),
                        List.of("crankw", "idler", "camw", "tens", "pumpw"),
                        set("tens", TensionerKind.TORQUE_TOOL, true),
                        Loop.LetOff.RELEASED,
                        List.of("camw", "pumpw", "tens"),
                        List.of()))
                .pin("cpin", "Crank pin", Hardware.Kind.PIN, "belt", List.of("crank"), "top", true, 0, "plug")
                .pin("kpin", "Cam pin", Hardware.Kind.PIN, "belt", List.of("cam"), "top", true, 0)
                .pin("ppin", "Pump pin", Hardware.Kind.PIN, "belt", List.of("pump"), "top", false, 0)
                .holder("rlock", "Ring-gear lock", Hardware.Kind.RING_GEAR_LOCK, List.of("crank"), "starter")
                .turner("crankbolt", "the crank bolt", Turner.Kind.JOINT, "crank")
                .renews("belt", "belt")
                .renews("tens", "tens")
                .renews("idler", "idler")
                .renews("crankbolt", "crank")
                .renews("damper", "damper")
                .renews("abelt", "abelt")
                .build();
    }

    private static Build sevenMarks() {
        Draft d = new Draft();
        for (String cam : List.of("ai", "ae", "bi", "be")) {
            String name =
                    (cam.startsWith("a") ? "Left " : "Right ") + (cam.endsWith("i") ? "inlet" : "exhaust") + " cam";
            d.springs(cam, name);
            d.wheel(cam + "w", name + " wheel", cam, Wheel.Fit.KEYED, "");
        }
        d.wheel("crankw", "Crank wheel", "crank", Wheel.Fit.KEYED, "")
                .position("seven", "All seven marks", 0)
                .part("abelt", "Accessory belt", Kind.ACCESSORY_DRIVE)
                .under("pulley", "Crank pulley", Kind.PULLEY)
                .part("centre", "Centre cover", Kind.COVER)
                .part("left", "Left cover", Kind.COVER)
                .part("right", "Right cover", Kind.COVER)
                .part("guard", "Belt guard", Kind.GUARD)
                .part("low", "Lower idler", Kind.IDLER)
                .part("tens", "Tensioner", Kind.TENSIONER)
                .before("abelt° > pulley > centre > guard+low > belt > tens; left+right > belt")
                .onBeforeTurns("guard")
                .moveOver(
                        "tens",
                        new Assembly.SmallPart(
                                "washer",
                                "Washer",
                                "under the tensioner's arm",
                                Optional.of("chamfer to the arm"),
                                Optional.empty()),
                        new Assembly.SmallPart("ring", "Ring", "keeps the washer"))
                .joint(
                        "pulley",
                        "Crank pulley bolt",
                        torque(219),
                        j -> j.critical().heldBy(Joint.HeldBy.BAR_IN_PULLEY))
                .joint("low", "Lower idler bolt", torque(45), j -> j)
                .joint(
                        "tens",
                        "Tensioner bolts",
                        torque(25, Moment.FITTED, Moment.TENSIONED),
                        j -> j.bolts(2).critical().loop("belt"));
        for (String mark : List.of("a1", "a2", "a3", "b1", "b2", "b3")) {
            d.mark(mark, "Mark " + mark, List.of("belt"), "seven", mark.startsWith("a") ? "left" : "right");
        }
        return d.mark("m0", "Crank wheel mark", List.of("belt"), "seven", "centre")
                .loop(loop(
                        "belt",
                        "Timing belt",
                        Drive.BELT,
                        211,
                        "seven",
                        List.of("crank", "ai", "ae", "bi", "be"),
                        List.of("crankw", "aiw", "aew", "biw", "bew", "tens", "low"),
                        pinned("tens", TensionerKind.HYDRAULIC_PIN, "tpin"),
                        Loop.LetOff.RELEASED,
                        List.of(),
                        List.of()))
                .clamp("locka", "Left cam lock", Hardware.Kind.LOCK, "belt", List.of("ai", "ae"), "left")
                .clamp("lockb", "Right cam lock", Hardware.Kind.LOCK, "belt", List.of("bi", "be"), "right")
                .tensionerPin("tpin", "Tensioner's own pin", "belt", "tens")
                .look(new Look(
                        "gap",
                        "Gap between guard and belt",
                        Look.Kind.GAP,
                        Optional.empty(),
                        List.of("centre"),
                        List.of("guard"),
                        Optional.of(1.0),
                        Optional.empty(),
                        "mm"))
                .turnedByPulley()
                .caution("guard", "A guard that touches cuts the belt.")
                .order("move-over:washer", "move-over:ring", "the ring keeps the washer")
                .renews("belt", "belt")
                .renews("tens", "tens")
                .renews("low", "low")
                .renews("abelt", "abelt")
                .build();
    }

    private static Build looseWheels() {
        return new Draft()
                .cam("in", "Inlet cam")
                .cam("ex", "Exhaust cam")
                .shaft("fuel", "Fuel pump", Shaft.Role.INJECTION_PUMP, Shaft.WhenFree.STAYS)
                .wheel("crankw", "Crank wheel", "crank", Wheel.Fit.KEYED, "")
                .wheel("inw", "Inlet cam wheel", "in", Wheel.Fit.FRICTION, "inw")
                .wheel("exw", "Exhaust cam wheel", "ex", Wheel.Fit.FRICTION, "exw")
                .wheel("fuelw", "Fuel pump wheel", "fuel", Wheel.Fit.KEYED, "")
                .position("top", "First cylinder at top", 0)
                .part("abelt", "Accessory belt", Kind.ACCESSORY_DRIVE)
                .part("id1", "Upper accessory idler", Kind.IDLER)
                .part("id2", "Lower accessory idler", Kind.IDLER)
                .under("pulley", "Crank pulley", Kind.PULLEY)
                .part("front", "Front cover", Kind.COVER)
                .part("inw", "Inlet cam wheel", Kind.WHEEL)
                .part("exw", "Exhaust cam wheel", Kind.WHEEL)
                .part("tens", "Tensioner", Kind.TENSIONER)
                .part("rear", "Rear cover", Kind.COVER)
                .part("pumpf", "Coolant pump, front half", Kind.PUMP)
                .before(
                        "abelt° > id1+id2 > front; abelt > pulley > front > belt > tens+inw+exw; inw+exw > rear > pumpf")
                .letsOut("pumpf", "coolant")
                .joint("id1", "Upper accessory idler", torque(40), j -> j.leftHand())
                .joint("id2", "Lower accessory idler", torque(40), j -> j.leftHand())
                .joint("pulley", "Crank pulley", torque(30), j -> j.bolts(4))
                .joint(
                        "inw",
                        "Inlet cam wheel bolt",
                        torque(80, Moment.FITTED, Moment.LAID),
                        j -> j.critical()
                                .heldBy(Joint.HeldBy.HARDWARE, "holder")
                                .pinned("kpins")
                                .loop("belt"))
                .joint(
                        "exw",
                        "Exhaust cam wheel bolt",
                        torque(80, Moment.FITTED, Moment.LAID),
                        j -> j.critical()
                                .heldBy(Joint.HeldBy.HARDWARE, "holder")
                                .pinned("kpins")
                                .loop("belt"))
                .joint(
                        "tens",
                        "Tensioner nut",
                        torque(30, Moment.TENSIONED, Moment.TURNED),
                        j -> j.critical().loop("belt"))
                .joint("pumpf", "Pump, front half", List.of(torque(5), torque(10)), j -> j.bolts(7))
                .loop(loop(
                        "belt",
                        "Timing belt",
                        Drive.BELT,
                        199,
                        "top",
                        List.of("crank", "in", "ex", "fuel"),
                        List.of("inw", "exw", "fuelw", "tens", "crankw"),
                        set("tens", TensionerKind.ECCENTRIC_POINTER, false),
                        Loop.LetOff.RELEASED,
                        List.of("tens"),
                        List.of("pointer")))
                .pin("cpin", "Crank pin", Hardware.Kind.PIN, "belt", List.of("crank"), "top", true, 2)
                .pin("kpins", "Cam pins", Hardware.Kind.PIN, "belt", List.of("in", "ex"), "top", true, 0)
                .mark("pmark", "Fuel pump mark", List.of("belt"), "top", "front")
                .holder("holder", "Cam wheel holder", Hardware.Kind.HOLDER, List.of("inw", "exw"), "front")
                .window("pointer", "Pointer in its window", "belt", 0, 5, "mm past centre", "front")
                .fluid("coolant", "Coolant", 6.5, POISON, false)
                .dryStart()
                .turner("crankbolt", "the crank wheel's bolt", Turner.Kind.STAYS, "")
                .renews("belt", "belt")
                .renews("tens", "tens")
                .renews("pumpf", "pumpf")
                .renews("coolant", "coolant")
                .renews("abelt", "abelt")
                .build();
    }

    private static Build paintTransfer() {
        Draft d = new Draft()
                .cam("fi", "Front inlet cam")
                .cam("fe", "Front exhaust cam")
                .springs("ri", "Rear inlet cam")
                .springs("re", "Rear exhaust cam")
                .wheel("crankw", "Crank wheel", "crank", Wheel.Fit.KEYED, "")
                .wheel("fiw", "Front inlet wheel", "fi", Wheel.Fit.KEYED, "")
                .wheel("few", "Front exhaust wheel", "fe", Wheel.Fit.KEYED, "")
                .wheel("riw", "Rear inlet wheel", "ri", Wheel.Fit.KEYED, "")
                .wheel("rew", "Rear exhaust wheel", "re", Wheel.Fit.KEYED, "")
                .position("notch", "Damper notch at its arrow", 0)
                .part("abelt", "Accessory belt", Kind.ACCESSORY_DRIVE)
                .part("spump", "Steering pump", Kind.ACCESSORY)
                .part("side", "Side cover", Kind.COVER)
                .part("top", "Top cover", Kind.COVER)
                .part("tens", "Tensioner", Kind.TENSIONER)
                .part("idlers", "Idlers", Kind.IDLER)
                .before("abelt° > spump > side > belt; top+tens > belt > idlers")
                .letsOut("spump", "steering")
                .joint("spump", "Steering pump", torque(24), j -> j.bolts(3))
                .joint("idlers", "Idler bolts", torque(40), j -> j.bolts(2))
                .joint(
                        "tens",
                        "Tensioner bolts",
                        torque(25, Moment.FITTED, Moment.TENSIONED),
                        j -> j.bolts(2).critical().loop("belt"))
                .loop(loop(
                        "belt",
                        "Timing belt",
                        Drive.BELT,
                        211,
                        "notch",
                        List.of("crank", "fi", "fe", "ri", "re"),
                        List.of("crankw", "idlers", "fiw", "few", "riw", "rew", "tens"),
                        pinned("tens", TensionerKind.HYDRAULIC_PIN, "tpin"),
                        Loop.LetOff.TENSIONER_OFF,
                        List.of(),
                        List.of()))
                .clamp("clampr", "Rear cam clamp", Hardware.Kind.CLAMP, "belt", List.of("ri", "re"), "top")
                .tensionerPin("tpin", "Tensioner's own pin", "belt", "tens")
                .mark("notch", "Damper notch to arrow", List.of("belt"), "notch");
        for (String paint : List.of("pf1", "pf2", "pr1", "pr2")) {
            d.reference(
                    paint,
                    "Own paint " + paint + ", wheel to casing",
                    List.of("belt"),
                    "notch",
                    Reference.Trust.BEFORE_AND_AFTER,
                    true,
                    "side",
                    "top");
        }
        return d.reference(
                        "printed", "Printed wheel marks", List.of("belt"), "notch", Reference.Trust.NEVER, false, "top")
                .look(new Look(
                        "teeth",
                        "Teeth between the paint marks, old against new",
                        Look.Kind.COUNT,
                        Optional.of("belt"),
                        List.of(),
                        List.of(),
                        Optional.empty(),
                        Optional.empty(),
                        "teeth"))
                .fluid("steering", "Steering fluid", 1.0, "", false)
                .dryStart()
                .turner("damper", "the damper", Turner.Kind.STAYS, "")
                .renews("belt", "belt")
                .renews("tens", "tens")
                .renews("idlers", "idlers")
                .renews("abelt", "abelt")
                .build();
    }

    private static Build beltInOil() {
        return new Draft()
                .cam("in", "Inlet cam")
                .cam("ex", "Exhaust cam")
                .wheel("crankw", "Crank wheel", "crank", Wheel.Fit.KEYED, "")
                .wheel("inw", "Inlet cam wheel", "in", Wheel.Fit.KEYED, "")
                .wheel("exw", "Exhaust cam wheel", "ex", Wheel.Fit.KEYED, "")
                .position("top", "First cylinder at top", 0)
                .part("abelt", "Accessory belt", Kind.ACCESSORY_DRIVE)
                .under("pulley", "Crank pulley", Kind.PULLEY)
                .part("front", "Front cover", Kind.FRONT_COVER)
                .part("tens", "Tensioner", Kind.TENSIONER)
                .under("sump", "Sump", Kind.SUMP)
                .under("strainer", "Oil strainer", Kind.STRAINER)
                .part("rocker", "Rocker cover", Kind.ROCKER_COVER)
                .under("filter", "Oil filter", Kind.FILTER)
                .before("abelt° > pulley > front > belt > tens; sump > front+strainer; rocker; filter")
                .letsOut("sump", "oil")
                .letsOut("filter", "oil")
                .lookBeforeOff("strainer", "Rubber in the strainer?")
                .joint(
                        "pulley",
                        "Crank pulley bolt",
                        List.of(torque(100, Moment.TURNED, Moment.RAN), angle(90, Moment.TURNED, Moment.RAN)),
                        j -> j.critical().fasteners("pulley").heldBy(Joint.HeldBy.BAR_IN_PULLEY))
                .joint(
                        "tens",
                        "Tensioner bolt",
                        torque(25, Moment.FITTED, Moment.TENSIONED),
                        j -> j.critical().loop("belt"))
                .joint("sump", "Sump", torque(10), j -> j.bolts(16))
                .joint("front", "Front cover", torque(10), j -> j.bolts(18))
                .joint("filter", "Oil filter", torque(14), j -> j)
                .loop(loop(
                        "belt",
                        "Timing belt in oil",
                        Drive.BELT_IN_OIL,
                        133,
                        "top",
                        List.of("crank", "in", "ex"),
                        List.of("crankw", "exw", "inw", "tens"),
                        pinned("tens", TensionerKind.SPRING_PIN, "tpin"),
                        Loop.LetOff.RELEASED,
                        List.of(),
                        List.of()))
                .pin("cpin", "Crank pin", Hardware.Kind.PIN, "belt", List.of("crank"), "top", true, 0)
                .pin("bar", "Cam bar", Hardware.Kind.BAR, "belt", List.of("in", "ex"), "top", true, 0, "rocker")
                .tensionerPin("tpin", "Tensioner's own pin", "belt", "tens")
                .opening("head", "the open head", "rocker")
                .look(new Look(
                        "clearances",
                        "Valve clearances, cold: inlet and exhaust",
                        Look.Kind.CLEARANCE,
                        Optional.empty(),
                        List.of("rocker"),
                        List.of(),
                        Optional.of(0.20),
                        Optional.of(0.25),
                        "mm"))
                .fluid("oil", "Engine oil", 4.2, "", true)
                .turnedByPulley()
                .renews("belt", "belt")
                .renews("tens", "tens")
                .renews("strainer", "strainer")
                .renews("oil", "filter", "oil")
                .renews("pulleybolt", "pulley")
                .renews("abelt", "abelt")
                .build();
    }

    private static Build twoPins() {
        return new Draft()
                .cam("cam", "Cam")
                .wheel("crankw", "Crank wheel", "crank", Wheel.Fit.FRICTION, "crank")
                .wheel("camw", "Cam wheel", "cam", Wheel.Fit.KEYED, "")
                .position("top", "First cylinder at top", 0)
                .part("abelt", "Accessory belt", Kind.ACCESSORY_DRIVE)
                .under("damper", "Crank damper", Kind.PULLEY)
                .under("lower", "Lower cover", Kind.COVER)
                .part("mount", "Engine mount", Kind.MOUNT)
                .part("upper", "Upper cover", Kind.COVER)
                .part("tens", "Tensioner", Kind.TENSIONER)
                .under("starter", "Starter", Kind.ACCESSORY)
                .under("plug", "Plug of the crank pin's hole", Kind.PLUG)
                .before("abelt° > damper° > lower > belt > tens; mount > upper > belt; starter; plug")
                .joint(
                        "crank",
                        "Crank bolt",
                        List.of(
                                torque(50, Moment.TENSIONED, Moment.TURNED),
                                angle(90, Moment.TENSIONED, Moment.TURNED, "lower", "mount")),
                        j -> j.holds("damper", "crankw")
                                .critical()
                                .fasteners("crank")
                                .heldBy(Joint.HeldBy.HARDWARE, "rlock")
                                .pinned("cpin", "kpin")
                                .loop("belt"))
                .joint("mount", "Engine mount", torque(65), j -> j.bolts(3).critical())
                .joint(
                        "tens",
                        "Tensioner bolt",
                        torque(30, Moment.FITTED, Moment.TENSIONED),
                        j -> j.critical().loop("belt"))
                .joint("starter", "Starter", torque(35), j -> j.bolts(2))
                .joint("plug", "Plug", torque(20), j -> j)
                .loop(loop(
                        "belt",
                        "Timing belt",
                        Drive.BELT,
                        137,
                        "top",
                        List.of("crank", "cam"),
                        List.of("crankw", "camw", "tens"),
                        pinned("tens", TensionerKind.SPRING_PIN, "tpin"),
                        Loop.LetOff.RELEASED,
                        List.of(),
                        List.of()))
                .pin("cpin", "Crank pin", Hardware.Kind.PIN, "belt", List.of("crank"), "top", true, 0, "plug")
                .pin("kpin", "Cam pin", Hardware.Kind.PIN, "belt", List.of("cam"), "top", true, 0)
                .tensionerPin("tpin", "Tensioner's own pin", "belt", "tens")
                .holder("rlock", "Ring-gear lock", Hardware.Kind.RING_GEAR_LOCK, List.of("crank"), "starter")
                .support("support", "Load spreader under the engine")
                .turner("crankbolt", "the crank bolt", Turner.Kind.JOINT, "crank")
                .renews("belt", "belt")
                .renews("tens", "tens")
                .renews("crankbolt", "crank")
                .renews("damper", "damper")
                .renews("mount", "mount")
                .renews("abelt", "abelt")
                .build();
    }

    private static Build pumpLed() {
        return new Draft()
                .cam("front", "Front cam")
                .cam("rear", "Rear cam")
                .wheel("crankw", "Crank wheel", "crank", Wheel.Fit.KEYED, "")
                .wheel("frontw", "Front cam wheel", "front", Wheel.Fit.KEYED, "")
                .wheel("rearw", "Rear cam wheel", "rear", Wheel.Fit.KEYED, "")
                .position("top", "First cylinder at top", 0)
                .part("abelt", "Accessory belt", Kind.ACCESSORY_DRIVE)
                .under("pulley", "Crank pulley", Kind.PULLEY)
                .under("lower", "Lower cover", Kind.COVER)
                .part("upper", "Upper cover", Kind.COVER)
                .part("ring", "Guide ring", Kind.GUIDE_RING)
                .part("mount", "Engine mount", Kind.MOUNT)
                .part("tens", "Tensioner", Kind.TENSIONER)
                .part("pump", "Water pump", Kind.PUMP)
                .before("abelt° > pulley > lower > ring° > belt > pump+tens; upper+mount > belt")
                .face("ring", "bevel in")
                .letsOut("pump", "coolant")
                .joint(
                        "pump",
                        "Pump to block",
                        List.of(torque(6), torque(12)),
                        j -> j.bolts(6).hiddenBy("belt"))
                .joint(
                        "pulley",
                        "Crank pulley bolt",
                        List.of(torque(65), angle(60, Moment.FITTED, Moment.RAN)),
                        j -> j.critical().heldBy(Joint.HeldBy.BAR_IN_PULLEY))
                .joint("mount", "Engine mount", torque(65), j -> j.bolts(3).critical())
                .joint(
                        "tens",
                        "Tensioner bolts",
                        torque(25, Moment.FITTED, Moment.TENSIONED),
                        j -> j.bolts(2).critical().loop("belt"))
                .loop(loop(
                        "belt",
                        "Timing belt",
                        Drive.BELT,
                        168,
                        "top",
                        List.of("crank", "front", "rear"),
                        List.of("crankw", "frontw", "pump", "rearw", "tens"),
                        new Loop.Tensioner(
                                "tens",
                                TensionerKind.HYDRAULIC_PIN,
                                Loop.LetGo.PIN_PULLED,
                                Optional.of("tpin"),
                                true,
                                false),
                        Loop.LetOff.RELEASED,
                        List.of(),
                        List.of()))
                .tensionerPin("tpin", "Tensioner's own pin", "belt", "tens")
                .support("support", "Load spreader under the engine")
                .mark("m0", "Crank wheel mark", List.of("belt"), "top", "lower", "ring")
                .mark("mf", "Front cam mark", List.of("belt"), "top", "upper")
                .mark("mr", "Rear cam mark", List.of("belt"), "top", "upper")
                .fluid("coolant", "Coolant", 7.0, POISON, false)
                .dryStart("pulley", "lower", "upper")
                .turnedByPulley()
                .renews("pump", "pump")
                .renews("belt", "belt")
                .renews("tens", "tens")
                .renews("coolant", "coolant")
                .renews("mount", "mount")
                .renews("abelt", "abelt")
                .build();
    }
}
