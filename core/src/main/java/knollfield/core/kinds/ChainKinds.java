package knollfield.core.kinds;

import static knollfield.core.kinds.Draft.angle;
import static knollfield.core.kinds.Draft.loop;
import static knollfield.core.kinds.Draft.pinned;
import static knollfield.core.kinds.Draft.pressed;
import static knollfield.core.kinds.Draft.torque;

import java.util.List;
import java.util.stream.Stream;
import knollfield.core.engine.Drive;
import knollfield.core.engine.TensionerKind;
import knollfield.core.engine.build.Assembly.Kind;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Joint.Moment;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.build.Shaft;
import knollfield.core.engine.build.Turner;
import knollfield.core.engine.build.Wheel;

/** Kinds that a chain drives. */
final class ChainKinds {

    private ChainKinds() {}

    static Stream<knollfield.core.kinds.Kind> all() {
        return Stream.of(
                new knollfield.core.kinds.Kind("e08", "Single chain, yield bolts, sump and front cover off", single()),
                new knollfield.core.kinds.Kind(
                        "e09", "V six, a chain a bank at different crank positions", bankByBank()),
                new knollfield.core.kinds.Kind("e10", "V eight, inner and outer chain, two clamps", innerAndOuter()),
                new knollfield.core.kinds.Kind("e11", "Chain tensioner from outside, chain held", tensionerAlone()));
    }

    private static Build single() {
        return new Draft()
                .cam("in", "Inlet cam")
                .cam("ex", "Exhaust cam")
                .wheel("crankw", "Crank wheel", "crank", Wheel.Fit.KEYED, "")
                .wheel("inw", "Inlet cam wheel", "in", Wheel.Fit.KEYED, "inw")
                .wheel("exw", "Exhaust cam wheel", "ex", Wheel.Fit.KEYED, "exw")
                .position("top", "First cylinder at top", 0)
                .part("abelt", "Accessory belt", Kind.ACCESSORY_DRIVE)
                .under("pulley", "Crank pulley", Kind.PULLEY)
                .part("front", "Front cover", Kind.FRONT_COVER)
                .under("sump", "Sump", Kind.SUMP)
                .part("rocker", "Rocker cover", Kind.ROCKER_COVER)
                .part("tens", "Chain tensioner", Kind.TENSIONER)
                .part("topg", "Top guide", Kind.GUIDE)
                .part("guide", "Guide", Kind.GUIDE)
                .part("arm", "Tensioner arm", Kind.ARM)
                .part("gplug", "Plug over the guide's upper bolt", Kind.PLUG)
                .part("inw", "Inlet cam wheel", Kind.WHEEL)
                .part("exw", "Exhaust cam wheel", Kind.WHEEL)
                .under("filter", "Oil filter", Kind.FILTER)
                .before("abelt° > pulley > front > chain+tens+guide+arm; sump > front; rocker > topg+inw+exw;"
                        + " gplug > guide; tens+topg+guide+inw+exw > chain > arm; filter")
                .letsOut("sump", "oil")
                .letsOut("filter", "oil")
                .onBeforeTurns("topg")
                .joint(
                        "pulley",
                        "Crank pulley bolt",
                        torque(150),
                        j -> j.critical().heldBy(Joint.HeldBy.BAR_IN_PULLEY))
                .joint(
                        "tens",
                        "Chain tensioner body",
                        torque(75, Moment.FITTED, Moment.TENSIONED),
                        j -> j.critical().loop("chain"))
                .joint("arm", "Arm bolt", torque(22, Moment.FITTED, Moment.TENSIONED), j -> j.loop("chain"))
                .joint(
                        "guide",
                        "Guide bolts",
                        torque(10, Moment.FITTED, Moment.TENSIONED),
                        j -> j.bolts(2).hidden("the upper one behind its plug").loop("chain"))
                .joint(
                        "inw",
                        "Inlet cam wheel bolt",
                        List.of(torque(30, Moment.TENSIONED, Moment.RAN), angle(100, Moment.TENSIONED, Moment.RAN)),
                        j -> j.critical()
                                .fasteners("inw")
                                .heldBy(Joint.HeldBy.HEXAGON)
                                .loop("chain"))
                .joint(
                        "exw",
                        "Exhaust cam wheel bolt",
                        List.of(torque(30, Moment.TENSIONED, Moment.RAN), angle(100, Moment.TENSIONED, Moment.RAN)),
                        j -> j.critical()
                                .fasteners("exw")
                                .heldBy(Joint.HeldBy.HEXAGON)
                                .loop("chain"))
                .joint("sump", "Sump", torque(10), j -> j.bolts(14))
                .joint("front", "Front cover", torque(10), j -> j.bolts(18))
                .joint("filter", "Oil filter", torque(14), j -> j)
                .loop(loop(
                        "chain",
                        "Timing chain",
                        Drive.CHAIN,
                        124,
                        "top",
                        List.of("crank", "in", "ex"),
                        List.of("crankw", "guide", "exw", "inw", "arm"),
                        pressed("tens"),
                        Loop.LetOff.TENSIONER_OFF,
                        List.of(),
                        List.of()))
                .mark("key", "Crank key", List.of("chain"), "top", "front")
                .mark("di", "Inlet dot", List.of("chain"), "top", "rocker")
                .mark("de", "Exhaust dot", List.of("chain"), "top", "rocker")
                .reference("links", "Coloured links", List.of("chain"), "top", Reference.Trust.LAYING_ONLY, false)
                .opening("head", "the open head", "rocker")
                .fluid("oil", "Engine oil", 4.5, "", true)
                .turnedByPulley()
                .renews("chain", "chain")
                .renews("tens", "tens")
                .renews("guides", "arm", "guide")
                .renews("wheelbolts", "inw", "exw")
                .renews("oil", "filter", "oil")
                .renews("abelt", "abelt")
                .build();
    }

    private static Build bankByBank() {
        Draft d = new Draft();
        for (String bank : List.of("a", "b")) {
            for (String cam : List.of("i", "e")) {
                String code = "c" + bank + cam;
                String name =
                        (bank.equals("a") ? "Bank a, " : "Bank b, ") + (cam.equals("i") ? "inlet cam" : "exhaust cam");
                d.shaft(
                        code,
                        name,
                        Shaft.Role.CAM,
                        Shaft.WhenFree.STAYS,
                        s -> new Shaft(
                                s.code(),
                                s.name(),
                                s.role(),
                                s.ratio(),
                                bank,
                                s.whenFree(),
                                bank.equals("a"),
                                bank.equals("b") ? List.of("b") : List.of(),
                                0));
                d.wheel(code + "w", name + " wheel", code, Wheel.Fit.KEYED, "");
            }
        }
        d.wheel("crankw", "Crank wheel", "crank", Wheel.Fit.KEYED, "")
                .position("a", "Key at 3 o'clock", 90)
                .position("b", "Key at 11 o'clock", 690)
                .part("abelt", "Accessory belt", Kind.ACCESSORY_DRIVE)
                .under("pulley", "Crank pulley", Kind.PULLEY)
                .part("front", "Front cover", Kind.FRONT_COVER)
                .part("ta", "Tensioner a", Kind.TENSIONER)
                .part("arma", "Arm a", Kind.ARM)
                .part("ga", "Guide a", Kind.GUIDE)
                .part("tb", "Tensioner b", Kind.TENSIONER)
                .part("armb", "Arm b", Kind.ARM)
                .part("gb", "Guide b", Kind.GUIDE)
                .part("rocka", "Rocker cover a", Kind.ROCKER_COVER)
                .part("rockb", "Rocker cover b", Kind.ROCKER_COVER)
                .before("abelt° > pulley > front > ta > arma° > a > ga; a > tb > armb° > b > gb; rocka; rockb")
                .joint(
                        "pulley",
                        "Crank pulley bolt",
                        torque(150),
                        j -> j.critical().heldBy(Joint.HeldBy.BAR_IN_PULLEY))
                .joint("front", "Front cover", torque(10), j -> j.bolts(22));
        for (String bank : List.of("a", "b")) {
            d.joint(
                            "t" + bank,
                            "Tensioner " + bank,
                            torque(12, Moment.FITTED, Moment.TENSIONED),
                            j -> j.bolts(2).critical().loop(bank))
                    .joint("g" + bank, "Guide " + bank, torque(10), j -> j.bolts(2))
                    .countBetween(bank, "c" + bank + "iw", "c" + bank + "ew", 12)
                    .loop(loop(
                            bank,
                            "Chain " + bank,
                            Drive.CHAIN,
                            118,
                            bank,
                            List.of("crank", "c" + bank + "i", "c" + bank + "e"),
                            List.of("crankw", "g" + bank, "c" + bank + "iw", "c" + bank + "ew", "arm" + bank),
                            pinned("t" + bank, TensionerKind.CHAIN_RATCHET, "tp" + bank),
                            Loop.LetOff.TENSIONER_OFF,
                            List.of(),
                            List.of()))
                    .tensionerPin("tp" + bank, "Pin of tensioner " + bank, bank, "t" + bank)
                    .mark("key" + bank, "Crank key, bank " + bank, List.of(bank), bank, "front")
                    .mark(bank + "1", "Inlet dot, bank " + bank, List.of(bank), bank, "rock" + bank)
                    .mark(bank + "2", "Exhaust dot, bank " + bank, List.of(bank), bank, "rock" + bank)
                    .reference(
                            "links" + bank,
                            "Coloured links, bank " + bank,
                            List.of(bank),
                            bank,
                            Reference.Trust.LAYING_ONLY,
                            false)
                    .opening("head" + bank, "the open head of bank " + bank, "rock" + bank);
        }
        return d.turnedByPulley()
                .turnedBack(10)
                .renews("chaina", "a")
                .renews("chainb", "b")
                .renews("tensa", "ta")
                .renews("tensb", "tb")
                .renews("guides", "ga", "gb")
                .renews("abelt", "abelt")
                .build();
    }

    private static Build innerAndOuter() {
        Draft d = new Draft();
        for (String bank : List.of("l", "r")) {
            d.shaft(
                    "cam" + bank,
                    bank.equals("l") ? "Left cam" : "Right cam",
                    Shaft.Role.CAM,
                    Shaft.WhenFree.SPRINGS,
                    s -> new Shaft(
                            s.code(),
                            s.name(),
                            s.role(),
                            s.ratio(),
                            bank.equals("l") ? "left" : "right",
                            s.whenFree(),
                            false,
                            List.of(),
                            3));
            d.wheel(
                    "w" + bank,
                    bank.equals("l") ? "Left cam wheel" : "Right cam wheel",
                    "cam" + bank,
                    Wheel.Fit.KEYED,
                    "");
        }
        d.wheel("crankw", "Crank wheel", "crank", Wheel.Fit.KEYED, "")
                .position("six", "Crank key at 6 o'clock", 180)
                .part("abelt", "Accessory belt", Kind.ACCESSORY_DRIVE)
                .under("pulley", "Crank pulley", Kind.PULLEY)
                .part("front", "Front cover", Kind.FRONT_COVER)
                .part("tr", "Right tensioner", Kind.TENSIONER)
                .part("armr", "Right arm", Kind.ARM)
                .part("gr", "Right guide", Kind.GUIDE)
                .part("tl", "Left tensioner", Kind.TENSIONER)
                .part("arml", "Left arm", Kind.ARM)
                .part("gl", "Left guide", Kind.GUIDE)
                .part("rockl", "Left rocker cover", Kind.ROCKER_COVER)
                .part("rockr", "Right rocker cover", Kind.ROCKER_COVER)
                .before("abelt° > pulley > front > tr > armr° > r > gr; r > tl > arml° > l > gl; rockl; rockr")
                .joint(
                        "pulley",
                        "Crank pulley bolt",
                        torque(170),
                        j -> j.critical().heldBy(Joint.HeldBy.BAR_IN_PULLEY))
                .joint("front", "Front cover", torque(24), j -> j.bolts(15));
        for (String bank : List.of("l", "r")) {
            String side = bank.equals("l") ? "Left" : "Right";
            d.joint(
                            "t" + bank,
                            side + " tensioner",
                            torque(12, Moment.FITTED, Moment.TENSIONED),
                            j -> j.bolts(2).critical().loop(bank))
                    .joint(
                            "g" + bank,
                            side + " guide",
                            torque(10),
                            j -> j.bolts(2).fasteners("gbolts"))
                    .loop(loop(
                            bank,
                            side + " chain",
                            Drive.CHAIN,
                            124,
                            "six",
                            List.of("crank", "cam" + bank),
                            List.of("crankw", "g" + bank, "w" + bank, "arm" + bank),
                            pinned("t" + bank, TensionerKind.CHAIN_RATCHET, "tp" + bank),
                            Loop.LetOff.TENSIONER_OFF,
                            List.of(),
                            List.of()))
                    .tensionerPin(
                            "tp" + bank,
                            "Pin of the " + side.toLowerCase(java.util.Locale.ROOT) + " tensioner",
                            bank,
                            "t" + bank)
                    .clamp(
                            "cl" + bank,
                            side + " cam clamp",
                            Hardware.Kind.CLAMP,
                            bank,
                            List.of("cam" + bank),
                            "rock" + bank)
                    .mark(bank + "1", side + " cam dot", List.of(bank), "six", "rock" + bank)
                    .opening(
                            "head" + bank,
                            "the open " + side.toLowerCase(java.util.Locale.ROOT) + " head",
                            "rock" + bank);
        }
        return d.mark("c0", "Crank key", List.of("l", "r"), "six", "front")
                .reference("links", "Coloured links", List.of("l", "r"), "six", Reference.Trust.LAYING_ONLY, false)
                .turnedByPulley()
                .renews("chainl", "l")
                .renews("chainr", "r")
                .renews("tensl", "tl")
                .renews("tensr", "tr")
                .renews("guides", "gl", "gr", "gbolts")
                .renews("abelt", "abelt")
                .build();
    }

    private static Build tensionerAlone() {
        return new Draft()
                .cam("in", "Inlet cam")
                .cam("ex", "Exhaust cam")
                .wheel("crankw", "Crank wheel", "crank", Wheel.Fit.KEYED, "")
                .wheel("inw", "Inlet cam wheel", "in", Wheel.Fit.KEYED, "")
                .wheel("exw", "Exhaust cam wheel", "ex", Wheel.Fit.KEYED, "")
                .position("top", "First cylinder at top", 0)
                .part("rocker", "Rocker cover", Kind.ROCKER_COVER)
                .part("tens", "Chain tensioner", Kind.TENSIONER)
                .before("rocker; tens")
                .joint(
                        "tens",
                        "Chain tensioner body",
                        torque(75, Moment.FITTED, Moment.TENSIONED),
                        j -> j.critical().loop("chain"))
                .loop(loop(
                        "chain",
                        "Timing chain",
                        Drive.CHAIN,
                        122,
                        "top",
                        List.of("crank", "in", "ex"),
                        List.of("crankw", "exw", "inw"),
                        pressed("tens"),
                        Loop.LetOff.TENSIONER_OFF,
                        List.of(),
                        List.of("slack")))
                .tie("tie1", "Tie round chain and inlet wheel", "chain", "rocker")
                .tie("tie2", "Tie round chain and exhaust wheel", "chain", "rocker")
                .reference(
                        "o1",
                        "Own mark across chain and inlet wheel",
                        List.of("chain"),
                        "top",
                        Reference.Trust.WHILE_HELD,
                        true,
                        "rocker")
                .reference(
                        "o2",
                        "Own mark across chain and exhaust wheel",
                        List.of("chain"),
                        "top",
                        Reference.Trust.WHILE_HELD,
                        true,
                        "rocker")
                .window("slack", "Slack of the top run", "chain", 0, 3, "mm", "rocker")
                .opening("head", "the open head", "rocker")
                .dryStart("rocker")
                .turner("damper", "the damper", Turner.Kind.STAYS, "")
                .renews("tens", "tens")
                .build();
    }
}
