package knollfield.app.trust;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * Requests made at random from an OpenAPI document: addresses and bodies as the schemas have them, about half of them broken
 * in some way. The same seed makes the same requests.
 */
final class Requests {

    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
    private static final int DEEPEST = 6;

    private static final List<String> WORDS = List.of(
            "SKR 201",
            "BELT_KIT",
            "NB-2",
            "Harbour",
            "ines",
            "Å ø ß Ж 漢",
            "",
            " ",
            "0",
            "x".repeat(300),
            "'; --",
            "=1+1",
            "\u0000",
            "\ud800",
            "<b>",
            "../../etc",
            "%s%n",
            "1e999",
            "\"",
            "NaN",
            "🔧",
            "true");
    private static final List<String> NUMBERS = List.of(
            "0",
            "-1",
            "1",
            "2147483647",
            "-2147483648",
            "2147483648",
            "9223372036854775807",
            "1e308",
            "-1e308",
            "1e999999999",
            "0.1",
            "1e-300",
            "-0.0",
            "99999999999999999999999",
            "1000000000000",
            "999999999");
    private static final List<String> DATES = List.of(
            "2026-11-25",
            "2026-12-01",
            "1999-02-29",
            "+999999999-12-31",
            "-999999999-01-01",
            "0000-00-00",
            "2199-12-31",
            "1900-01-01",
            "9999-12-31",
            "2026-13-01",
            "today",
            "");
    private static final List<String> PATH_PARTS = List.of(
            "0",
            "-1",
            "abc",
            "9223372036854775807",
            "99999999999999999999",
            "%ff",
            "%00",
            "%E2%82%28",
            "1e3",
            "..%2f",
            "%20",
            "1");

    private final JsonNode schemas;
    private final List<Operation> operations = new ArrayList<>();
    private final Random random;
    private final Function<String, Optional<JsonNode>> stored;

    /** An operation of the document. */
    record Operation(String method, String path, JsonNode definition) {}

    /**
     * @param body empty where there is none to send
     * @param type content type
     */
    record Request(String method, String path, String accept, String type, byte[] body) {}

    /** @param stored what is on file at an address; empty where nothing is */
    Requests(JsonNode document, long seed, Function<String, Optional<JsonNode>> stored) {
        this.stored = stored;
        this.schemas = document.get("components").get("schemas");
        document.get("paths")
                .properties()
                .forEach(path -> path.getValue()
                        .properties()
                        .forEach(o -> operations.add(new Operation(
                                o.getKey().toUpperCase(java.util.Locale.ROOT), path.getKey(), o.getValue()))));
        this.random = new Random(seed);
    }

    List<Operation> operations() {
        return List.copyOf(operations);
    }

    Request next() {
        Operation o = operations.get(random.nextInt(operations.size()));
        // changes are fewer than questions in the document, and there is more in them to break
        if (o.method().equals("GET") && random.nextInt(3) > 0) {
            o = operations.get(random.nextInt(operations.size()));
        }
        boolean broken = random.nextBoolean();
        String accept = random.nextInt(12) == 0
                ? pick(List.of("text/html", "*/*", "image/png", "nonsense", "application/xml"))
                : "*/*";
        JsonNode content = o.definition().path("requestBody").path("content");
        String type =
                content.properties().stream().findFirst().map(Map.Entry::getKey).orElse("application/json");
        String path = path(o, broken);
        byte[] body = new byte[0];
        if (!content.isEmpty()) {
            JsonNode schema = content.path(type).path("schema");
            body = type.equals("application/json")
                    ? json(like(o, path, schema, broken), broken)
                    : pick(WORDS).repeat(1 + random.nextInt(4)).getBytes(StandardCharsets.UTF_8);
        }
        if (broken && random.nextInt(6) == 0) {
            type = pick(List.of(
                    "text/plain",
                    "multipart/form-data; boundary=x",
                    "application/x-www-form-urlencoded",
                    "*/*",
                    "text/csv"));
        }
        return new Request(o.method(), path + query(o, broken), accept, type, body);
    }

    /** What is on file there with a field or two changed, where something is; else a body of the schema's own. */
    private JsonNode like(Operation o, String path, JsonNode schema, boolean broken) {
        JsonNode made = value(schema, broken, "", 0);
        JsonNode properties = resolved(schema).path("properties");
        Optional<ObjectNode> known = !o.method().equals("PUT") || random.nextInt(3) == 0
                ? Optional.empty()
                : stored.apply(path).filter(ObjectNode.class::isInstance).map(ObjectNode.class::cast);
        return known.<JsonNode>map(like -> {
                    ObjectNode next = NODES.objectNode();
                    like.properties().stream()
                            .filter(p -> properties.has(p.getKey()))
                            .forEach(p -> next.set(p.getKey(), p.getValue()));
                    made.properties().forEach(p -> {
                        if (!next.has(p.getKey()) || random.nextInt(1 + properties.size()) < 2) {
                            next.set(p.getKey(), p.getValue());
                        }
                    });
                    return next;
                })
                .orElse(made);
    }

    private byte[] json(JsonNode tree, boolean broken) {
        String text = tree.toString();
        if (broken) {
            // the marks that stand for numbers no tree can hold
            text = text.replaceAll("\"#(-?[0-9.eE+-]+)\"", "$1");
            if (random.nextInt(20) == 0) {
                text = pick(List.of(
                        "",
                        "null",
                        "[]",
                        "{",
                        "[".repeat(2000),
                        text.substring(0, text.length() / 2),
                        "\"x\"",
                        "{\"a\":".repeat(900)));
            }
        }
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private String path(Operation o, boolean broken) {
        StringBuilder made = new StringBuilder();
        for (String part : o.path().substring(1).split("/", -1)) {
            made.append('/');
            if (part.startsWith("{")) {
                int end = part.indexOf('}');
                boolean number = parameter(o, part.substring(1, end))
                        .path("type")
                        .asString("")
                        .equals("integer");
                String good = number
                        ? String.valueOf(1 + random.nextInt(random.nextBoolean() ? 8 : 260))
                        : pick(List.of("SK-B16", "PRIVATE", "BELT_KIT", "1", "TERNE", "SK-1"));
                made.append(broken && random.nextInt(3) == 0 ? pick(PATH_PARTS) : good)
                        .append(part.substring(end + 1));
            } else {
                made.append(part);
            }
        }
        return made.toString();
    }

    private JsonNode parameter(Operation o, String name) {
        return o.definition()
                .path("parameters")
                .valueStream()
                .filter(p -> p.path("name").asString("").equals(name))
                .map(p -> p.path("schema"))
                .findFirst()
                .orElse(NODES.objectNode());
    }

    private String query(Operation o, boolean broken) {
        String made = o.definition()
                .path("parameters")
                .valueStream()
                .filter(p -> p.path("in").asString("").equals("query"))
                .flatMap(p -> {
                    JsonNode schema = resolved(p.path("schema"));
                    // parameters bound to one object stand in the address one by one
                    return schema.has("properties")
                            ? schema.get("properties").properties().stream()
                                    .map(f -> parameter(f.getKey(), f.getValue(), broken))
                            : java.util.stream.Stream.of(
                                    parameter(p.path("name").asString(), schema, broken));
                })
                .filter(s -> random.nextInt(3) > 0)
                .collect(Collectors.joining("&"));
        return made.isEmpty() ? "" : "?" + made;
    }

    private String parameter(String name, JsonNode schema, boolean broken) {
        JsonNode value = value(kind(schema).equals("array") ? schema.path("items") : schema, broken, name, DEEPEST);
        String text = value.isString() ? value.asString() : value.toString();
        text = text.startsWith("#") ? text.substring(1) : text;
        return name + "="
                + (broken && random.nextInt(12) == 0
                        ? "%ff%zz".substring(0, 3)
                        : URLEncoder.encode(text, StandardCharsets.UTF_8));
    }

    private JsonNode resolved(JsonNode schema) {
        String ref = schema.path("$ref").asString("");
        return ref.isEmpty() ? schema : schemas.path(ref.substring(ref.lastIndexOf('/') + 1));
    }

    private JsonNode value(JsonNode raw, boolean broken, String name, int depth) {
        if (broken && random.nextInt(9) == 0) {
            return wrong();
        }
        JsonNode schema = resolved(raw);
        if (schema.has("oneOf")) {
            JsonNode choice =
                    schema.get("oneOf").get(random.nextInt(schema.get("oneOf").size()));
            JsonNode made = value(choice, broken, name, depth);
            if (made instanceof ObjectNode object && schema.has("discriminator")) {
                String kind = schema.path("discriminator").path("mapping").properties().stream()
                        .filter(m -> m.getValue()
                                .asString()
                                .equals(choice.path("$ref").asString("")))
                        .map(Map.Entry::getKey)
                        .findFirst()
                        .orElse("X");
                object.put(schema.path("discriminator").path("propertyName").asString("type"), kind);
            }
            return made;
        }
        if (schema.has("allOf")) {
            ObjectNode all = NODES.objectNode();
            schema.get("allOf").forEach(part -> {
                if (value(part, broken, name, depth) instanceof ObjectNode object) {
                    all.setAll(object);
                }
            });
            return all;
        }
        if (schema.has("enum")) {
            return schema.get("enum").get(random.nextInt(schema.get("enum").size()));
        }
        return switch (kind(schema)) {
            case "integer" -> number(broken, name, true);
            case "number" -> number(broken, name, false);
            case "boolean" -> NODES.booleanNode(random.nextBoolean());
            case "string" -> text(schema, broken, name);
            case "array" -> array(schema, broken, name, depth);
            default -> object(schema, broken, depth);
        };
    }

    /** The type of a schema, which may allow for none beside it. */
    private static String kind(JsonNode schema) {
        JsonNode type = schema.path("type");
        return type.isArray() ? type.get(0).asString() : type.asString("object");
    }

    private JsonNode wrong() {
        return switch (random.nextInt(7)) {
            case 0 -> NODES.nullNode();
            case 1 -> NODES.arrayNode();
            case 2 -> NODES.objectNode();
            case 3 -> NODES.stringNode(pick(WORDS));
            case 4 -> NODES.booleanNode(true);
            default -> NODES.stringNode("#" + pick(NUMBERS));
        };
    }

    private JsonNode number(boolean broken, String name, boolean whole) {
        if (broken && random.nextInt(3) == 0) {
            return NODES.stringNode("#" + pick(NUMBERS));
        }
        if (name.equals("version")) {
            return NODES.numberNode(1 + random.nextInt(4));
        }
        if (name.toLowerCase(java.util.Locale.ROOT).endsWith("id")) {
            return NODES.numberNode(1 + random.nextInt(60));
        }
        int size = random.nextInt(5);
        double value = random.nextDouble() * Math.pow(10, size);
        return whole ? NODES.numberNode((long) value) : NODES.numberNode(Math.round(value * 100) / 100.0);
    }

    private JsonNode text(JsonNode schema, boolean broken, String name) {
        String format = schema.path("format").asString("");
        if (format.equals("date")) {
            return NODES.stringNode(
                    broken && random.nextInt(2) == 0
                            ? pick(DATES)
                            : "2026-%02d-%02d".formatted(1 + random.nextInt(12), 1 + random.nextInt(28)));
        }
        if (format.equals("date-time")) {
            return NODES.stringNode(
                    broken
                            ? pick(DATES) + "T10:00"
                            : "2026-12-%02dT%02d:30:00Z".formatted(1 + random.nextInt(28), 8 + random.nextInt(9)));
        }
        return NODES.stringNode(
                name.toLowerCase(java.util.Locale.ROOT).contains("month")
                        ? "2027-0" + (1 + random.nextInt(9))
                        : pick(WORDS));
    }

    private JsonNode array(JsonNode schema, boolean broken, String name, int depth) {
        ArrayNode made = NODES.arrayNode();
        int size = depth >= DEEPEST ? 0 : broken && random.nextInt(40) == 0 ? 200 : random.nextInt(4);
        IntStream.range(0, size).forEach(i -> made.add(value(schema.path("items"), broken, name, depth + 1)));
        return made;
    }

    private JsonNode object(JsonNode schema, boolean broken, int depth) {
        ObjectNode made = NODES.objectNode();
        JsonNode properties = schema.path("properties");
        List<String> required =
                schema.path("required").valueStream().map(JsonNode::asString).toList();
        properties.properties().forEach(p -> {
            boolean kept = required.contains(p.getKey()) ? !broken || random.nextInt(10) > 0 : random.nextBoolean();
            if (kept && depth < DEEPEST) {
                made.set(p.getKey(), value(p.getValue(), broken, p.getKey(), depth + 1));
            }
        });
        if (schema.has("additionalProperties")
                && schema.get("additionalProperties").isObject()) {
            made.set(pick(WORDS), value(schema.get("additionalProperties"), broken, "", depth + 1));
        }
        return made;
    }

    private <T> T pick(List<T> from) {
        return from.get(random.nextInt(from.size()));
    }
}
