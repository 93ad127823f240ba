package knollfield.core.jobcard;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.build.Anatomy;
import knollfield.core.engine.build.Assembly;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Joint;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Position;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.build.Shaft;
import knollfield.core.engine.build.Turner;
import knollfield.core.engine.build.Wheel;
import knollfield.core.engine.work.Operation;
import knollfield.core.engine.work.Verb;

/** How operations read on a card. */
final class RoutedWords {

    private final Anatomy book;
    private final EngineFamily family;

    RoutedWords(Anatomy book, EngineFamily family) {
        this.book = book;
        this.family = family;
    }

    String name(String thing) {
        return book.assembly(thing)
                .map(Assembly::name)
                .or(() -> book.loop(thing).map(Loop::name))
                .or(() -> book.hardware(thing).map(Hardware::name))
                .or(() -> book.reference(thing).map(Reference::name))
                .or(() -> book.joint(thing).map(Joint::name))
                .or(() -> book.fluid(thing).map(f -> f.name()))
                .or(() -> book.look(thing).map(l -> l.name()))
                .or(() -> book.turner(thing).map(Turner::name))
                .or(() -> book.opening(thing).map(o -> o.name()))
                .or(() -> book.position(thing).map(Position::name))
                .or(() -> book.assemblies().stream()
                        .flatMap(a -> a.moveOver().stream())
                        .filter(p -> p.code().equals(thing))
                        .findFirst()
                        .map(Assembly.SmallPart::name))
                .orElse(thing);
    }

    /** Names in a row, the first with a capital letter. */
    String row(List<String> things) {
        String all = things.stream().map(this::name).map(CardSteps::lower).collect(Collectors.joining(", "));
        return all.isEmpty() ? all : all.substring(0, 1).toUpperCase(Locale.ROOT) + all.substring(1);
    }

    /** A run of plain operations as one line. */
    String plain(List<Operation> run) {
        List<String> sentences = new ArrayList<>();
        int i = 0;
        while (i < run.size()) {
            Verb verb = kind(run.get(i), run);
            List<Operation> same = new ArrayList<>();
            while (i < run.size() && kind(run.get(i), run) == verb) {
                same.add(run.get(i++));
            }
            sentences.add(sentence(verb, same));
        }
        return String.join("; ", sentences);
    }

    /** Undoing goes with taking off where both are done at once, doing up with fitting. */
    private Verb kind(Operation o, List<Operation> run) {
        return switch (o.verb()) {
            case UNDO -> run.contains(Operation.of(Verb.TAKE_OFF, o.thing())) ? Verb.TAKE_OFF : Verb.UNDO;
            case TIGHTEN -> Verb.FIT;
            default -> o.verb();
        };
    }

    private String sentence(Verb verb, List<Operation> same) {
        List<String> things = same.stream()
                .map(o -> o.verb() == Verb.TIGHTEN
                        ? book.joint(o.thing())
                                .filter(j -> j.holds().stream().noneMatch(h -> contains(same, h)))
                                .map(Joint::code)
                                .orElse("")
                        : o.thing())
                .filter(t -> !t.isEmpty())
                .distinct()
                .toList();
        return switch (verb) {
            case TAKE_OFF -> row(things) + " off";
            case UNDO ->
                row(things) + (things.stream().allMatch(t -> book.assembly(t).isPresent()) ? " undone" : " slackened");
            case FIT -> row(things) + (same.stream().allMatch(o -> o.verb() == Verb.TIGHTEN) ? " done up" : " on");
            case FOR_NOW -> row(things) + ": on for now, old fasteners, by hand";
            case RAISE -> "Raise, on stands";
            case LOOP_OFF -> row(things) + " off";
            case RELEASE -> "Let the tension off: " + lowered(things);
            case LAY -> "Lay on: " + lowered(things);
            case LOOK -> "Look at " + lowered(things);
            case MARK -> "Mark " + lowered(things) + ": running way and teeth";
            case SET_IN -> row(things) + " in";
            case OUT -> row(things) + " out";
            case TIGHTEN -> row(things) + " done up";
            case CREEP -> "Creep by a tooth";
            case SAFE -> "Battery off";
            case TURN ->
                things.stream().allMatch(t -> book.shaft(t).isPresent())
                        ? row(things) + " to its mark by feel"
                        : "Two turns by hand";
            case TENSION -> "Tension set: " + lowered(things);
            case PROVE -> row(things) + " read true";
            case FIND -> row(things) + " found";
            case LOST -> row(things) + " out of time";
            case SHEARED -> row(things) + ": broken off";
            case REPAIR -> row(things) + ": stub out, thread whole, new stud or bolt in hand";
            case MISSING -> row(things) + ": a piece missing";
            case SEARCH -> row(things) + " looked through for pieces";
            case COMPARE -> row(things) + " compared";
            case MOVE_OVER -> row(things) + " moved over";
            case MEASURE -> row(things) + " measured";
            case BRING, BACK ->
                "Crank brought on: "
                        + things.stream()
                                .flatMap(t -> book.position(t).stream())
                                .map(p -> CardSteps.lower(p.name()))
                                .collect(Collectors.joining(", "));
            case DRAIN -> row(things) + " out";
            case FILL -> row(things) + " in";
            case COVER -> row(things) + " covered";
            case CLOSE -> "On its wheels, battery on";
            case START -> "First start";
            case CHECK -> "Check after the start";
            case LABEL -> "Label";
        };
    }

    /** A small part and the part with which it goes on. */
    private record Moved(Assembly.SmallPart small, String goesOnWith) {}

    private Stream<Moved> smallParts() {
        return book.assemblies().stream()
                .flatMap(a -> a.moveOver().stream()
                        .map(p -> new Moved(p, p.goesOnWith().orElse(a.code()))));
    }

    /** Where small parts go, which way round, and with what they go on. */
    List<String> places(List<String> small) {
        return smallParts()
                .filter(p -> small.contains(p.small().code()))
                .map(p -> "%s. Goes on with: %s.".formatted(placed(p.small()), CardSteps.lower(name(p.goesOnWith()))))
                .toList();
    }

    private static String placed(Assembly.SmallPart p) {
        return Stream.of(Optional.of(p.name()), Optional.of(p.place()).filter(x -> !x.isBlank()), p.face())
                .flatMap(Optional::stream)
                .collect(Collectors.joining(", "))
                .replaceFirst(", ", ": ");
    }

    private String lowered(List<String> things) {
        return CardSteps.lower(row(things));
    }

    private static boolean contains(List<Operation> all, String fitted) {
        return all.stream().anyMatch(o -> o.verb() == Verb.FIT && o.thing().equals(fitted));
    }

    /** What is to know of the joints and parts in a run. */
    List<String> notes(List<Operation> run) {
        List<String> notes = new ArrayList<>();
        for (Operation o : run) {
            if (o.verb() == Verb.UNDO) {
                book.joint(o.thing()).ifPresent(j -> undoing(j, notes));
            } else if (o.verb() == Verb.TIGHTEN) {
                book.joint(o.thing()).ifPresent(j -> {
                    notes.add(j.name() + ": " + stage(j, o.stage()));
                    if (j.undoing().leftHand()) {
                        notes.add(j.name() + ": left-hand thread.");
                    }
                    j.undoing().socket().ifPresent(socket -> notes.add(j.name() + ": socket " + socket + "."));
                    if (o.stage() == 1) {
                        order(j).ifPresent(w -> notes.add(j.name() + ": " + w + "."));
                        family.joint(j.code()).stream()
                                .map(b -> b.assembly())
                                .forEach(a -> Stream.concat(
                                                CardSteps.lengths(a).map(l -> l + ".").stream(),
                                                CardSteps.faceAndThread(a).stream()
                                                        .map(CardSteps::lower))
                                        .forEach(n -> notes.add(j.name() + ": " + n)));
                    }
                });
            } else if (o.verb() == Verb.FIT) {
                book.assembly(o.thing())
                        .flatMap(Assembly::face)
                        .ifPresent(f -> notes.add(name(o.thing()) + ": " + f + "."));
                smallParts()
                        .filter(p -> p.goesOnWith().equals(o.thing()))
                        .forEach(p -> notes.add(placed(p.small()) + "."));
            } else if (o.verb() == Verb.LAY) {
                book.loop(o.thing()).ifPresent(l -> {
                    notes.add(laying(l));
                    family.handling().slackStrategy().ifPresent(notes::add);
                    if (family.handling().printedMarks()) {
                        notes.add("Printed marks: count between them.");
                    }
                    shafts(l, notes);
                });
            } else if (o.verb() == Verb.TENSION
                    && !family.handling().tensionerSetting().isBlank()) {
                notes.add(sentence(family.handling().tensionerSetting()));
            } else if (o.verb() == Verb.SET_IN) {
                book.hardware(o.thing())
                        .filter(h -> h.playDegrees() > 0)
                        .ifPresent(h -> notes.add("%s leaves %d° of play.".formatted(h.name(), h.playDegrees())));
            }
        }
        return notes.stream().distinct().toList();
    }

    private static String sentence(String words) {
        return words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1) + (words.endsWith(".") ? "" : ".");
    }

    private void undoing(Joint j, List<String> notes) {
        if (j.undoing().leftHand()) {
            notes.add(j.name() + ": left-hand thread, undone to the right.");
        }
        j.undoing().socket().ifPresent(s -> notes.add(j.name() + ": socket " + s + "."));
        j.undoing().hidden().ifPresent(h -> notes.add(j.name() + ": " + h + "."));
        order(j).ifPresent(w -> notes.add("%s: tightened %s; undone the other way round.".formatted(j.name(), w)));
        heldBy(j).ifPresent(notes::add);
        family.joint(j.code())
                .flatMap(b -> CardSteps.lengths(b.assembly()))
                .ifPresent(l -> notes.add("%s come out as they go in: %s.".formatted(j.name(), l)));
    }

    /** The book's order of several bolts. */
    private static Optional<String> order(Joint j) {
        return j.undoing().order().filter(o -> j.bolts() > 1).map(o -> BoltPattern.words(Optional.of(o)));
    }

    Optional<String> heldBy(Joint j) {
        return switch (j.heldBy()) {
            case NOTHING -> Optional.empty();
            case COUNTER_HOLDER -> Optional.of("Counter-held at the wheel; no bolt loads a pin.");
            case HEXAGON -> Optional.of("The shaft held on its hexagon.");
            case BAR_IN_PULLEY -> Optional.of("Held by a bar in the pulley, never by the starter.");
            case HARDWARE ->
                Optional.of("Held by the "
                        + j.holders().stream()
                                .map(this::name)
                                .map(CardSteps::lower)
                                .collect(Collectors.joining(" or "))
                        + "; a timing pin never takes the bolt's torque.");
        };
    }

    private String laying(Loop loop) {
        return "In this order: "
                + loop.wheels().stream().map(this::wheel).map(CardSteps::lower).collect(Collectors.joining(", "))
                + (loop.lastWheel() == Loop.LastWheel.SLID_OVER
                        ? ", slid over it last"
                        : ", the last one bolted on after")
                + "; slack at the tensioner.";
    }

    /** What the shafts and wheels of a loop allow while it is laid. */
    private void shafts(Loop loop, List<String> notes) {
        for (String code : loop.shafts()) {
            book.shaft(code).ifPresent(s -> {
                String bank = s.bank().isBlank() ? "" : " (" + s.bank() + ")";
                if (s.rockDegrees() > 0) {
                    notes.add("%s%s may be rocked by %d° to meet its mark.".formatted(s.name(), bank, s.rockDegrees()));
                }
                if (!s.freeAt().isEmpty()) {
                    notes.add("%s%s may be moved by itself at: %s."
                            .formatted(
                                    s.name(),
                                    bank,
                                    s.freeAt().stream()
                                            .flatMap(p -> book.position(p).stream())
                                            .map(p -> CardSteps.lower(p.name()))
                                            .collect(Collectors.joining(", "))));
                }
                if (s.role() != Shaft.Role.CRANK && s.role() != Shaft.Role.CAM) {
                    notes.add("%s, %s: %d : %d to the crank."
                            .formatted(
                                    s.name(),
                                    s.role().name().toLowerCase(Locale.ROOT).replace('_', ' '),
                                    s.ratio().numerator(),
                                    s.ratio().denominator()));
                }
                if (s.whenFree() != Shaft.WhenFree.STAYS) {
                    notes.add("%s%s %s when nothing holds it."
                            .formatted(s.name(), bank, s.whenFree().name().toLowerCase(Locale.ROOT)));
                }
            });
        }
        book.wheels().stream()
                .filter(w -> w.fit() != Wheel.Fit.KEYED && loop.shafts().contains(w.shaft()))
                .forEach(w -> notes.add(
                        w.fit() == Wheel.Fit.FLOATING
                                ? "%s floats%s on the %s: in the middle of its slots."
                                        .formatted(
                                                w.name(),
                                                w.floatDegrees() == 0 ? "" : " by %d°".formatted(w.floatDegrees()),
                                                shaft(w))
                                : "%s is held on the %s by friction alone.".formatted(w.name(), shaft(w))));
    }

    private String shaft(Wheel wheel) {
        return book.shaft(wheel.shaft()).map(s -> CardSteps.lower(s.name())).orElse(wheel.shaft());
    }

    String wheel(String code) {
        return book.wheel(code).map(w -> w.name()).orElseGet(() -> name(code));
    }

    /** A stage in both units people read. */
    String stage(Joint joint, int number) {
        Joint.Stage s = joint.stages().get(number - 1);
        String words = s.torque().map(TorqueWords::inBothUnits).orElse("");
        if (s.angleDegrees().isPresent()) {
            words += (words.isEmpty() ? "" : " ") + "+ " + s.angleDegrees().getAsInt() + "°";
        }
        if (words.isEmpty()) {
            words = joint.stages().size() > 1 && number == 1 ? "nipped" : "not on file: by feel, noted";
        }
        return words + (joint.bolts() > 1 ? ", %d bolts".formatted(joint.bolts()) : "") + ".";
    }

    /** What is compared of a new part, as ordered. */
    String compared(String thing) {
        Optional<knollfield.core.engine.Item> item = itemOf(thing);
        String number = item.map(i -> i.part().number()).orElse("number");
        if (book.loop(thing).isPresent()) {
            Loop l = book.loop(thing).get();
            return "%s: %s, %d %s, width, thickness"
                    .formatted(
                            CardSteps.lower(l.name()),
                            number,
                            l.teeth(),
                            l.kind().counted());
        }
        return "%s: %s, side, thickness".formatted(CardSteps.lower(name(thing)), number);
    }

    Optional<knollfield.core.engine.Item> itemOf(String thing) {
        return book.build().renews().stream()
                .filter(r -> r.things().contains(thing))
                .findFirst()
                .flatMap(r -> family.item(r.item()));
    }
}
