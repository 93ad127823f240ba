package knollfield.app.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import knollfield.app.problem.InvalidInput;
import knollfield.core.clock.Limit;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Interference;
import knollfield.core.engine.RepairEstimate;
import knollfield.core.engine.Schedule;
import knollfield.core.jobcard.BookProof;
import knollfield.core.jobcard.CardGenerator;
import knollfield.core.jobcard.CardNotProven;
import knollfield.core.jobcard.Step;
import knollfield.core.kinds.Kind;
import knollfield.core.kinds.KindFamily;
import knollfield.core.kinds.Kinds;
import knollfield.core.units.DistanceUnit;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Every field of how an engine is built changes something a person sees: for each leaf of the schema there is a pair of
 * books that differ in it alone, and a card, its proof or the drawing differs.
 */
class BookLeavesTest {

    private static final JsonMapper MAPPER = JsonMapper.builder().build();
    private static final FamilyJson JSON = new FamilyJson(MAPPER);

    /** A loop as drawn, of the kind looked at. */
    private static JsonNode PATH = MAPPER.createObjectNode();

    /** Fields that only tell one thing from another; that they are unique and lead somewhere is tested elsewhere. */
    private static final List<String> IDENTITY = List.of("code");

    @Test
    void everyLeafOfTheBuildIsSeenSomewhere() {
        JsonNode schema = MAPPER.readTree(JSON.schema()).at("/properties/family/properties/build");
        Map<String, Boolean> seen = new LinkedHashMap<>();
        leaves("", schema, seen);
        for (var kind : Kinds.all()) {
            EngineFamily family = family(kind);
            String before = whatOneSees(family);
            ObjectNode document = JSON.write(family);
            PATH = document.at("/family/path").deepCopy();
            walk("", document.at("/family/build"), (leaf, change) -> {
                if (!seen.getOrDefault(leaf, true)) {
                    change.run();
                    if (differs(document, before)) {
                        seen.put(leaf, true);
                    }
                }
            });
        }
        orderOfBolts(seen);
        assertThat(seen).hasSizeGreaterThan(100);
        List<String> unseen = seen.entrySet().stream()
                .filter(e -> !e.getValue())
                .map(Map.Entry::getKey)
                .toList();
        assertThat(unseen).isEmpty();
    }

    private static EngineFamily family(Kind kind) {
        return KindFamily.of(
                kind,
                "T-" + kind.code(),
                "Tested",
                Interference.YES,
                Optional.of(new Schedule(Limit.of(120_000, 72), Optional.empty(), "own", DistanceUnit.KM)),
                new RepairEstimate(1, 2, 3),
                5_000);
    }

    /** No kind says in which order bolts are done up; a book that does is walked by itself. */
    private static void orderOfBolts(Map<String, Boolean> seen) {
        for (var kind : Kinds.all()) {
            ObjectNode document = JSON.write(family(kind));
            for (JsonNode joint : document.at("/family/build/joints")) {
                if (joint.get("bolts").asInt() < 3) {
                    continue;
                }
                ObjectNode order = ((ObjectNode) joint.get("undoing")).putObject("order");
                order.put("way", "ROUND").put("start", 1).put("clockwise", true);
                String before = whatOneSees(JSON.read(document.toString()));
                walk("/joints/undoing/order", order, (leaf, change) -> {
                    change.run();
                    if (differs(document, before)) {
                        seen.put(leaf, true);
                    }
                });
                ((ObjectNode) joint.get("undoing")).putNull("order");
            }
        }
    }

    private static boolean differs(ObjectNode document, String before) {
        try {
            return !whatOneSees(JSON.read(document.toString())).equals(before);
        } catch (InvalidInput e) {
            // a book that is refused differs in what one sees, but says nothing of what the field is for
            return false;
        }
    }

    /** Cards of every purpose with all their words, what breaks, and how the loops are drawn. */
    private static String whatOneSees(EngineFamily family) {
        StringBuilder all = new StringBuilder();
        for (BookProof.Purpose p : BookProof.of(family)) {
            all.append(p.name()).append(p.breaches());
            p.card().ifPresent(c -> all.append(bare(family, p.items())));
            p.card()
                    .ifPresent(c -> c.steps()
                            .forEach(s -> all.append(s.code())
                                    .append(s.title())
                                    .append(s.notes())
                                    .append(s.caution())
                                    .append(s.task())
                                    .append(s.gate())
                                    .append(s.why())));
        }
        family.build().orElseThrow().loops().forEach(l -> all.append(l.drawing()));
        return all.toString();
    }

    /** The same on a vehicle without any equipment. */
    private static String bare(EngineFamily family, java.util.Set<String> items) {
        try {
            return CardGenerator.generate(family, java.util.Set.of(), items).steps().stream()
                    .map(Step::title)
                    .toList()
                    .toString();
        } catch (CardNotProven e) {
            return String.valueOf(e.getMessage());
        }
    }

    private interface Change {
        void at(String leaf, Runnable change);
    }

    /** Leaves of the schema, as a path without the numbers of lists. */
    private static void leaves(String path, JsonNode schema, Map<String, Boolean> into) {
        JsonNode properties = schema.get("properties");
        if (properties != null) {
            // a drawing is a loop's path, whose own leaves are drawn by the first test of the path
            for (String name : new TreeSet<>(List.copyOf(properties.propertyNames()))) {
                if (name.equals("drawing")) {
                    into.put(path + "/drawing", false);
                } else if (!IDENTITY.contains(name)) {
                    leaves(path + "/" + name, properties.get(name), into);
                }
            }
        } else if (schema.has("items")) {
            JsonNode items = schema.get("items");
            if (items.has("properties")) {
                leaves(path, items, into);
            } else {
                into.put(path, false);
            }
        } else {
            into.put(path, false);
        }
    }

    /** Changes one leaf after the other in every way that suits its kind, and puts it back. */
    private static void walk(String path, JsonNode node, Change change) {
        if (node instanceof ObjectNode object) {
            for (String name : List.copyOf(object.propertyNames())) {
                JsonNode value = object.get(name);
                String here = path + "/" + name;
                if (name.equals("drawing")) {
                    change.at(here, () -> object.set(name, PATH));
                    object.set(name, value);
                    continue;
                }
                if (value.isObject()
                        || (value.isArray() && !value.isEmpty() && value.get(0).isObject())) {
                    walk(here, value, change);
                }
                for (JsonNode other : others(name, value)) {
                    change.at(here, () -> object.set(name, other));
                    object.set(name, value);
                }
            }
        } else if (node instanceof ArrayNode list) {
            for (int i = 0; i < list.size(); i++) {
                walk(path, list.get(i), change);
            }
        }
    }

    private static List<JsonNode> others(String name, JsonNode value) {
        List<JsonNode> others = new ArrayList<>();
        if (value.isBoolean()) {
            others.add(MAPPER.valueToTree(!value.asBoolean()));
        } else if (value.isInt() || value.isLong()) {
            others.add(MAPPER.valueToTree(value.asInt() + 1));
            others.add(MAPPER.valueToTree(value.asInt() + 7));
        } else if (value.isNumber()) {
            others.add(MAPPER.valueToTree(value.asDouble() + 1));
        } else if (value.isString()) {
            others.add(MAPPER.valueToTree(value.asString() + " x"));
            others.add(MAPPER.nullNode());
            words(name).forEach(w -> others.add(MAPPER.valueToTree(w)));
        } else if (value.isNull()) {
            others.add(MAPPER.valueToTree("x"));
            others.add(MAPPER.valueToTree(45));
            words(name).forEach(w -> others.add(MAPPER.valueToTree(w)));
        } else if (value.isArray() && (value.isEmpty() || value.get(0).isString())) {
            if (!value.isEmpty()) {
                others.add(MAPPER.createArrayNode());
            }
            words(name).forEach(w -> others.add(MAPPER.createArrayNode().add(w)));
        }
        return others;
    }

    /** Codes and words of the kinds that a field can take. */
    private static List<String> words(String name) {
        return CANDIDATES.getOrDefault(
                name,
                List.of(
                        "pulley", "front", "upper", "tens", "belt", "chain", "a", "b", "l", "top", "cpin", "kpin",
                        "crank", "cam", "in"));
    }

    private static final Map<String, List<String>> CANDIDATES = Map.ofEntries(
            Map.entry("way", List.of("OUTWARDS", "CROSSWISE")),
            Map.entry("role", List.of("CAM", "AUXILIARY", "INJECTION_PUMP", "BALANCE")),
            Map.entry("whenFree", List.of("SPRINGS", "ROLLS", "STAYS")),
            Map.entry("fit", List.of("KEYED", "FRICTION")),
            Map.entry("trust", List.of("NEVER", "BEFORE", "LAYING_ONLY", "AFTER")),
            Map.entry("letOff", List.of("RELEASED", "TENSIONER_OFF", "CUT")),
            Map.entry("letGo", List.of("SET", "PRESSED")),
            Map.entry("lastWheel", List.of("BOLTED_ON_AFTER")),
            Map.entry("inBefore", List.of("TENSION_OFF", "LOOP_OFF", "JOINT")),
            Map.entry("heldBy", List.of("NOTHING", "HEXAGON", "COUNTER_HOLDER")),
            Map.entry("from", List.of("TURNED", "FITTED", "TENSIONED")),
            Map.entry("until", List.of("TURNED", "RAN")),
            Map.entry(
                    "kind",
                    List.of(
                            "COVER",
                            "PLUG",
                            "OTHER",
                            "GUIDE",
                            "IDLER",
                            "CHAIN",
                            "BELT",
                            "TWIST",
                            "FREQUENCY",
                            "WINDOW",
                            "STAYS",
                            "CLAMP",
                            "PIN",
                            "TIE",
                            "GAP",
                            "CLEARANCE",
                            "SUPPORT")),
            Map.entry("joint", List.of("crank", "tens", "lower")),
            Map.entry("thing", List.of("pulley", "crank", "tens", "belt", "lower")),
            Map.entry("freeAt", List.of("top", "a", "b", "six")),
            Map.entry("shaft", List.of("cam", "pump", "in", "ex", "crank")),
            Map.entry("position", List.of("b", "a")));
}
