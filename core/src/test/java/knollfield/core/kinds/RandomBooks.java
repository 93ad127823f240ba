package knollfield.core.kinds;

import static knollfield.core.kinds.Draft.angle;
import static knollfield.core.kinds.Draft.loop;
import static knollfield.core.kinds.Draft.nipped;
import static knollfield.core.kinds.Draft.torque;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import knollfield.core.engine.Drive;
import knollfield.core.engine.TensionerKind;
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

/** Books of engines nobody has built, and jobs on them: each follows from its seed alone. */
public final class RandomBooks {

    /** A book with a job on it. */
    public record Case(Build book, Set<String> things) {}

    private final Random random;
    private final Draft draft = new Draft();
    private final List<String> renewable = new ArrayList<>();
    private final StringBuilder before = new StringBuilder();

    private RandomBooks(long seed) {
        random = new Random(seed);
    }

    public static Case of(long seed) {
        return new RandomBooks(seed).book();
    }

    private boolean chance(int percent) {
        return random.nextInt(100) < percent;
    }

    private Case book() {
        boolean chain = chance(40);
        boolean twoLoops = chance(chain ? 50 : 10);
        boolean twoPositions = twoLoops && chance(50);
        boolean friction = !twoLoops && chance(30);
        draft.position("p1", "Position one", random.nextInt(720));
        if (twoPositions) {
            draft.position("p2", "Position two", random.nextInt(720));
        }
        List<String> fronts = fronts(friction);
        String front = fronts.get(fronts.size() - 1);
        boolean rocker = chance(50);
        if (rocker) {
            draft.part("rocker", "Rocker cover", Kind.ROCKER_COVER);
            clause("rocker");
            if (chance(60)) {
                draft.opening("head", "the open head", "rocker");
            }
            if (chance(40)) {
                draft.look(new Look(
                        "clear",
                        "Clearances",
                        Look.Kind.CLEARANCE,
                        Optional.empty(),
                        List.of("rocker"),
                        List.of(),
                        Optional.of(0.2),
                        Optional.of(0.3),
                        "mm"));
            }
        }
        draft.wheel(
                "crankw",
                "Crank wheel",
                "crank",
                friction ? Wheel.Fit.FRICTION : Wheel.Fit.KEYED,
                friction ? "crank" : "");
        loopOf("1", chain, front, rocker, twoLoops, twoPositions, friction);
        if (twoLoops) {
            clause("l1 > t2");
            loopOf("2", chain, front, rocker, true, twoPositions, false);
        }
        extras();
        if (!friction) {
            if (chance(40)) {
                draft.turner("stays", "the crank wheel's bolt", Turner.Kind.STAYS, "");
            } else {
                draft.turnedByPulley();
            }
        }
        draft.before(before.toString());
        Set<String> things = new LinkedHashSet<>();
        int wanted = 1 + random.nextInt(Math.min(4, renewable.size()));
        while (things.size() < wanted) {
            things.add(renewable.get(random.nextInt(renewable.size())));
        }
        return new Case(draft.build(), things);
    }

    private void clause(String words) {
        if (!before.isEmpty()) {
            before.append("; ");
        }
        before.append(words);
    }

    /** Accessory belt, pulley and covers, each before the next. */
    private List<String> fronts(boolean friction) {
        List<String> fronts = new ArrayList<>();
        draft.part("abelt", "Accessory belt", Kind.ACCESSORY_DRIVE);
        renewable.add("abelt");
        fronts.add("abelt°");
        draft.under("pulley", "Crank pulley", Kind.PULLEY);
        fronts.add(friction ? "pulley°" : "pulley");
        int covers = 1 + random.nextInt(3);
        for (int i = 1; i <= covers; i++) {
            draft.part("c" + i, "Cover " + i, chance(20) ? Kind.FRONT_COVER : Kind.COVER);
            fronts.add("c" + i);
        }
        clause(String.join(" > ", fronts));
        if (friction) {
            draft.under("starter", "Starter", Kind.ACCESSORY);
            clause("starter");
            draft.holder("rlock", "Ring-gear lock", Hardware.Kind.RING_GEAR_LOCK, List.of("crank"), "starter");
            draft.turner("bolt", "the crank bolt", Turner.Kind.JOINT, "crank");
            renewable.add("crank");
        }
        return fronts;
    }

    private void loopOf(
            String n,
            boolean chain,
            String front,
            boolean rocker,
            boolean twoLoops,
            boolean twoPositions,
            boolean friction) {
        String code = "l" + n;
        String tens = "t" + n;
        String position = twoPositions ? "p" + n : "p1";
        boolean springs = !twoPositions && chance(30);
        int cams = 1 + random.nextInt(2);
        List<String> shafts = new ArrayList<>(List.of("crank"));
        List<String> wheels = new ArrayList<>(List.of("crankw"));
        List<String> cam = new ArrayList<>();
        for (int i = 1; i <= cams; i++) {
            String shaft = "s" + n + i;
            cam.add(shaft);
            boolean outer = n.equals("1");
            draft.shaft(
                    shaft,
                    "Cam " + shaft,
                    Shaft.Role.CAM,
                    springs ? Shaft.WhenFree.SPRINGS : Shaft.WhenFree.STAYS,
                    s -> new Shaft(
                            s.code(),
                            s.name(),
                            s.role(),
                            s.ratio(),
                            n,
                            s.whenFree(),
                            twoPositions && outer,
                            twoPositions && !outer ? List.of(position) : List.of(),
                            0));
            shafts.add(shaft);
            wheels.add("w" + shaft);
        }
        boolean pins = !twoPositions && (friction || chance(50));
        List<String> pinned = new ArrayList<>();
        if (pins) {
            draft.pin("cpin" + n, "Crank pin", Hardware.Kind.PIN, code, List.of("crank"), position, true, 0);
            draft.pin("kpin" + n, "Cam pin", Hardware.Kind.BAR, code, cam, position, true, 0, rocker ? "rocker" : "c1");
            pinned.add("cpin" + n);
            pinned.add("kpin" + n);
        }
        for (String shaft : cam) {
            boolean floating = pins && !twoLoops && chance(30);
            draft.wheel(
                    "w" + shaft,
                    "Wheel " + shaft,
                    shaft,
                    floating ? Wheel.Fit.FLOATING : Wheel.Fit.KEYED,
                    floating ? "w" + shaft : "");
            if (floating) {
                draft.joint(
                        "w" + shaft,
                        "Bolts of wheel " + shaft,
                        torque(25, Moment.TENSIONED, Moment.TURNED),
                        j -> j.critical()
                                .heldBy(Joint.HeldBy.COUNTER_HOLDER)
                                .pinned(pinned.toArray(String[]::new))
                                .loop(code));
            }
        }
        boolean paint = !pins && chance(25);
        if (!pins || chance(30)) {
            int marks = 1 + random.nextInt(3);
            for (int i = 1; i <= marks; i++) {
                String off = chance(50) && !friction ? front : rocker ? "rocker" : friction ? "c1" : front;
                if (friction && !off.equals("rocker")) {
                    continue;
                }
                draft.reference(
                        "m" + n + i,
                        "Mark " + n + i,
                        List.of(code),
                        position,
                        Reference.Trust.BEFORE_AND_AFTER,
                        paint,
                        off);
            }
            if (!pins) {
                draft.mark("m" + n + "0", "Mark " + n + "0", List.of(code), position, rocker ? "rocker" : front);
            }
        }
        if (springs) {
            draft.clamp("cl" + n, "Clamp " + n, Hardware.Kind.CLAMP, code, cam, rocker ? "rocker" : front);
        }
        draft.part(tens, "Tensioner " + n, Kind.TENSIONER);
        renewable.add(tens);
        boolean setKind = !chain && chance(50);
        boolean again = setKind && chance(40);
        boolean tensionerFirst = !setKind && (chain || chance(30));
        List<String> slacken = new ArrayList<>();
        if (setKind) {
            slacken.add(tens);
        }
        draft.wheels().stream()
                .filter(w -> w.fit() == Wheel.Fit.FLOATING && cam.contains(w.shaft()))
                .flatMap(w -> w.joint().stream())
                .forEach(slacken::add);
        List<Joint.Stage> stages = new ArrayList<>();
        if (again) {
            stages.add(nipped(Moment.TENSIONED, Moment.TURNED));
            stages.add(torque(50, Moment.SET_AGAIN, Moment.RAN));
        } else if (setKind) {
            stages.add(torque(45, Moment.TENSIONED, Moment.TURNED));
        } else {
            stages.add(torque(25, Moment.FITTED, Moment.TENSIONED));
        }
        draft.joint(tens, "Tensioner " + n, stages, j -> j.critical().loop(code));
        boolean pin = !setKind && (!chain || chance(60));
        if (pin) {
            draft.tensionerPin("tp" + n, "Pin of tensioner " + n, code, tens);
        }
        boolean window = chance(50);
        if (window) {
            draft.window("win" + n, "Window " + n, code, 0, 5, "mm", front);
        }
        if (friction) {
            draft.joint(
                    "crank",
                    "Crank bolt",
                    List.of(torque(100, Moment.TENSIONED, Moment.TURNED), angle(90, Moment.TENSIONED, Moment.TURNED)),
                    j -> j.holds("pulley", "crankw")
                            .critical()
                            .fasteners("crank")
                            .heldBy(Joint.HeldBy.HARDWARE, "rlock")
                            .pinned(pinned.toArray(String[]::new))
                            .loop(code));
        }
        draft.loop(loop(
                code,
                "Loop " + n,
                chain ? Drive.CHAIN : Drive.BELT,
                100 + random.nextInt(80),
                position,
                shafts,
                wheels,
                new Loop.Tensioner(
                        tens,
                        setKind ? TensionerKind.TWIST : chain ? TensionerKind.CHAIN_RATCHET : TensionerKind.SPRING_PIN,
                        setKind ? Loop.LetGo.SET : pin ? Loop.LetGo.PIN_PULLED : Loop.LetGo.PRESSED,
                        pin ? Optional.of("tp" + n) : Optional.empty(),
                        pin && chance(20),
                        again),
                tensionerFirst ? Loop.LetOff.TENSIONER_OFF : Loop.LetOff.RELEASED,
                slacken,
                window ? List.of("win" + n) : List.of()));
        renewable.add(code);
        clause(front + " > " + (tensionerFirst ? tens + " > " + code : code + " > " + tens));
        if (!chain && chance(50)) {
            draft.part("id" + n, "Idler " + n, Kind.IDLER);
            wheels.add("id" + n);
            renewable.add("id" + n);
            clause(code + " > id" + n);
        }
        if (chain && chance(60)) {
            draft.part("g" + n, "Guide " + n, Kind.GUIDE);
            renewable.add("g" + n);
            clause(code + " > g" + n);
        }
        if (chance(40)) {
            draft.part("pump" + n, "Pump " + n, Kind.PUMP);
            if (n.equals("1")) {
                draft.fluid("coolant", "Coolant", 5, "", chance(20));
                draft.letsOut("pump1", "coolant");
            }
            renewable.add("pump" + n);
            clause(code + " > pump" + n);
        }
        if (chain && chance(40)) {
            draft.reference("links" + n, "Links " + n, List.of(code), position, Reference.Trust.LAYING_ONLY, false);
        }
    }

    private void extras() {
        if (chance(40)) {
            draft.part("mount", "Engine mount", Kind.MOUNT);
            draft.support("support", "Load spreader");
            clause("mount > c1");
        }
        if (chance(30)) {
            draft.under("sump", "Sump", Kind.SUMP);
            draft.fluid("oil", "Oil", 4, "", true);
            draft.letsOut("sump", "oil");
            clause("sump > c1");
        }
    }
}
