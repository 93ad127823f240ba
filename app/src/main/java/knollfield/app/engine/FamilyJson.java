package knollfield.app.engine;

import com.networknt.schema.Error;
import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import knollfield.app.problem.FieldProblem;
import knollfield.app.problem.InvalidInput;
import knollfield.core.engine.AccessStep;
import knollfield.core.engine.Assembly;
import knollfield.core.engine.BeltPath;
import knollfield.core.engine.BookFault;
import knollfield.core.engine.EngineFamily;
import knollfield.core.engine.Handling;
import knollfield.core.engine.Item;
import knollfield.core.engine.Joint;
import knollfield.core.engine.Kit;
import knollfield.core.engine.Pulley;
import knollfield.core.engine.Ratio;
import knollfield.core.engine.RepairEstimate;
import knollfield.core.engine.ToolSet;
import knollfield.core.engine.Variant;
import knollfield.core.engine.build.Build;
import knollfield.core.engine.build.Fluid;
import knollfield.core.engine.build.Hardware;
import knollfield.core.engine.build.Look;
import knollfield.core.engine.build.Loop;
import knollfield.core.engine.build.Position;
import knollfield.core.engine.build.Reference;
import knollfield.core.engine.build.Shaft;
import knollfield.core.engine.build.Wheel;
import knollfield.core.engine.grow.GrownBuild;
import org.springframework.stereotype.Component;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Engine families as JSON documents: written, and read with every fault at its place. */
@Component
public class FamilyJson {

    private static final String FORMAT = "knollfield-engine-family";
    /** What is written; documents of version 1 are read as well, and how the engine is built is grown from them. */
    private static final int FORMAT_VERSION = 2;

    private static final int MOST_FAULTS = 60;

    /** The family's lists of things, and what each holds. */
    private static final Map<String, Class<?>> LISTS = Map.of(
            "items", Item.class,
            "accessSteps", AccessStep.class,
            "joints", Joint.class,
            "variants", Variant.class,
            "kits", Kit.class);

    private static final Map<String, Class<?>> BUILD_LISTS = Map.of(
            "shafts", Shaft.class,
            "wheels", Wheel.class,
            "loops", Loop.class,
            "positions", Position.class,
            "hardware", Hardware.class,
            "references", Reference.class,
            "joints", knollfield.core.engine.build.Joint.class,
            "fluids", Fluid.class,
            "looks", Look.class);

    private final JsonMapper json;
    private final String schemaText;
    private final Schema schema;

    FamilyJson(JsonMapper json) {
        this.json = json.rebuild()
                .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
                .build();
        try (InputStream in = Objects.requireNonNull(
                FamilyJson.class.getResourceAsStream("/engine-family.schema.json"), "the schema is part of the jar")) {
            this.schemaText = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        this.schema = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(schemaText, InputFormat.JSON);
    }

    /** The published JSON Schema. */
    String schema() {
        return schemaText;
    }

    /** The family as a document that {@link #read} takes. */
    ObjectNode write(EngineFamily family) {
        ObjectNode document = json.createObjectNode();
        document.put("format", FORMAT);
        document.put("formatVersion", FORMAT_VERSION);
        document.set("family", json.valueToTree(family));
        return document;
    }

    /**
     * The family that {@code text} describes.
     *
     * @throws InvalidInput with every fault, each with its JSON pointer into the document
     */
    EngineFamily read(String text) {
        JsonNode document;
        try {
            document = json.readTree(text);
        } catch (JacksonException e) {
            String where = e.getLocation() == null
                    ? ""
                    : " at line %d, column %d"
                            .formatted(
                                    e.getLocation().getLineNr(), e.getLocation().getColumnNr());
            throw new InvalidInput("", "This is not JSON%s.".formatted(where));
        }
        List<FieldProblem> problems = new ArrayList<>();
        for (Error error : schema.validate(document)) {
            if (problems.size() < MOST_FAULTS) {
                problems.add(problem(error));
            }
        }
        if (!problems.isEmpty()) {
            throw new InvalidInput(problems);
        }
        return build(document.get("family"));
    }

    private EngineFamily build(JsonNode family) {
        List<BookFault> faults = new ArrayList<>();
        // part by part first, so that one fault does not hide another
        LISTS.forEach((list, type) -> {
            for (int i = 0; i < family.get(list).size(); i++) {
                part(family.get(list).get(i), type, "/%s/%d".formatted(list, i), faults);
            }
        });
        part(family.get("repair"), RepairEstimate.class, "/repair", faults);
        part(family.get("handling"), Handling.class, "/handling", faults);
        part(family.get("tools"), ToolSet.class, "/tools", faults);
        if (family.get("build") != null && !family.get("build").isNull()) {
            build(family.get("build"), faults);
        }
        if (family.get("path") != null && !family.get("path").isNull()) {
            path(family.get("path"), faults);
        }
        if (faults.isEmpty()) {
            try {
                return GrownBuild.grown(json.treeToValue(family, EngineFamily.class));
            } catch (JacksonException e) {
                faults.addAll(faultsOf(e, ""));
            }
        }
        throw new InvalidInput(faults.stream()
                .map(f -> new FieldProblem("/family" + f.pointer(), sentence(f.words())))
                .toList());
    }

    /** How the engine is built, list by list first; only where each thing can be read does one look at them together. */
    private void build(JsonNode build, List<BookFault> faults) {
        int before = faults.size();
        BUILD_LISTS.forEach((list, type) -> {
            for (int i = 0; i < build.get(list).size(); i++) {
                part(build.get(list).get(i), type, "/build/%s/%d".formatted(list, i), faults);
            }
        });
        if (faults.size() == before) {
            part(build, Build.class, "/build", faults);
        }
    }

    /** The family as plain maps and lists. */
    @SuppressWarnings("unchecked")
    Map<String, Object> map(EngineFamily family) {
        return json.convertValue(family, Map.class);
    }

    /** The family that plain maps and lists describe; as {@link #read(String)}, with pointers from {@code /family} on. */
    EngineFamily read(Map<String, Object> family) {
        ObjectNode document = json.createObjectNode();
        document.put("format", FORMAT);
        document.put("formatVersion", FORMAT_VERSION);
        document.set("family", json.valueToTree(family));
        return read(document.toString());
    }

    /** A body from the database; what older versions did not hold yet is filled in, its build grown from the rest. */
    EngineFamily stored(String body) {
        ObjectNode family = (ObjectNode) json.readTree(body);
        if (!family.has("handling")) {
            family.set("handling", json.valueToTree(Handling.careful()));
            family.putArray("variants");
            family.putArray("kits");
            family.set("tools", json.valueToTree(ToolSet.none()));
            ObjectNode plain = json.valueToTree(Assembly.plain());
            family.get("joints").forEach(j -> {
                ((ObjectNode) j).set("assembly", plain.deepCopy());
                if (j.get("torque") instanceof ObjectNode torque) {
                    torque.putArray("printed");
                }
            });
        }
        if (!family.has("build")) {
            family.putNull("build");
        }
        ObjectNode handling = (ObjectNode) family.get("handling");
        if (!handling.has("clearances")) {
            handling.putNull("acceptance");
            handling.putNull("otherBank");
            handling.putArray("clearances");
        }
        return GrownBuild.grown(json.treeToValue(family, EngineFamily.class));
    }

    /** True for a body from the database that holds a build of its own. */
    boolean saysHowItIsBuilt(String body) {
        JsonNode build = json.readTree(body).get("build");
        return build != null && !build.isNull();
    }

    private void path(JsonNode path, List<BookFault> faults) {
        int before = faults.size();
        List<Pulley> pulleys = new ArrayList<>();
        for (int i = 0; i < path.get("pulleys").size(); i++) {
            part(path.get("pulleys").get(i), Pulley.class, "/path/pulleys/" + i, faults)
                    .ifPresent(pulleys::add);
        }
        JsonNode ratio = path.get("intermediate");
        Optional<Ratio> intermediate = ratio == null || ratio.isNull()
                ? Optional.empty()
                : part(ratio, Ratio.class, "/path/intermediate", faults);
        if (faults.size() == before) {
            BeltPath.faults(path.get("teeth").asInt(), intermediate, pulleys)
                    .forEach(f -> faults.add(f.under("/path")));
        }
    }

    private <T> Optional<T> part(JsonNode node, Class<T> type, String at, List<BookFault> faults) {
        try {
            return Optional.of(json.treeToValue(node, type));
        } catch (JacksonException e) {
            faults.addAll(faultsOf(e, at));
            return Optional.empty();
        }
    }

    private static List<BookFault> faultsOf(JacksonException e, String at) {
        StringBuilder pointer = new StringBuilder(at);
        for (JacksonException.Reference r : e.getPath()) {
            pointer.append('/').append(r.getPropertyName() == null ? r.getIndex() : r.getPropertyName());
        }
        for (Throwable cause = e; cause != null; cause = cause.getCause()) {
            if (cause instanceof BookFault.Broken broken) {
                return broken.faults().stream()
                        .map(f -> f.under(pointer.toString()))
                        .toList();
            }
            if (cause instanceof IllegalArgumentException refused && refused.getMessage() != null) {
                return List.of(new BookFault(pointer.toString(), refused.getMessage()));
            }
        }
        return List.of(new BookFault(pointer.toString(), "this value cannot be read"));
    }

    private static FieldProblem problem(Error error) {
        String pointer = error.getInstanceLocation().toString();
        String missing = error.getProperty();
        String at = "required".equals(error.getKeyword()) || "additionalProperties".equals(error.getKeyword())
                ? pointer + "/" + missing
                : pointer;
        String words = switch (error.getKeyword()) {
            case "required" -> "This is missing.";
            case "additionalProperties" -> "The format knows no such field.";
            case "pattern" ->
                message(error).contains("\\d") ? "A figure such as 25 or 2.5." : "Letters, digits, - and _ only.";
            default -> sentence(message(error));
        };
        return new FieldProblem(at.startsWith("/") || at.isEmpty() ? at : "/" + at, words);
    }

    private static String message(Error error) {
        String text = String.valueOf(error.getMessage());
        int colon = text.indexOf(": ");
        return colon >= 0 && text.startsWith("/") ? text.substring(colon + 2) : text;
    }

    private static String sentence(String words) {
        String trimmed = words.strip();
        String start = trimmed.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + trimmed.substring(1);
        return start.endsWith(".") ? start : start + ".";
    }

    /** What differs between two books, in the order of the document. */
    List<FamilyDifference> differences(EngineFamily before, EngineFamily after) {
        List<FamilyDifference> found = new ArrayList<>();
        compare("", json.valueToTree(before), json.valueToTree(after), found);
        return found;
    }

    private void compare(String pointer, JsonNode before, JsonNode after, List<FamilyDifference> found) {
        if (before.equals(after)) {
            return;
        }
        if (before.isObject() && after.isObject()) {
            for (String name : before.propertyNames()) {
                JsonNode other = after.get(name);
                if (other == null) {
                    found.add(new FamilyDifference(pointer + "/" + name, words(before.get(name)), ""));
                } else {
                    compare(pointer + "/" + name, before.get(name), other, found);
                }
            }
            for (String name : after.propertyNames()) {
                if (before.get(name) == null) {
                    found.add(new FamilyDifference(pointer + "/" + name, "", words(after.get(name))));
                }
            }
        } else if (keyed(before) && keyed(after)) {
            for (JsonNode one : before) {
                String code = one.get("code").asString();
                Optional<JsonNode> other = withCode(after, code);
                if (other.isPresent()) {
                    compare(pointer + "/" + code, one, other.get(), found);
                } else {
                    found.add(new FamilyDifference(pointer + "/" + code, words(one), ""));
                }
            }
            for (JsonNode one : after) {
                String code = one.get("code").asString();
                if (withCode(before, code).isEmpty()) {
                    found.add(new FamilyDifference(pointer + "/" + code, "", words(one)));
                }
            }
        } else {
            found.add(new FamilyDifference(pointer, words(before), words(after)));
        }
    }

    private static boolean keyed(JsonNode node) {
        if (!node.isArray() || node.isEmpty()) {
            return false;
        }
        for (JsonNode one : node) {
            if (!one.has("code")) {
                return false;
            }
        }
        return true;
    }

    private static Optional<JsonNode> withCode(JsonNode list, String code) {
        Iterator<JsonNode> all = list.iterator();
        while (all.hasNext()) {
            JsonNode one = all.next();
            if (one.get("code").asString().equals(code)) {
                return Optional.of(one);
            }
        }
        return Optional.empty();
    }

    private static String words(JsonNode node) {
        if (node.isNull()) {
            return "";
        }
        if (node.isObject() && node.has("name")) {
            return node.get("name").asString();
        }
        if (node.isObject() && node.has("title")) {
            return node.get("title").asString();
        }
        return node.isValueNode() ? node.asString() : node.toString();
    }
}
