package knollfield.app.shared;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.media.Schema;
import java.math.BigDecimal;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.customizers.GlobalOpenApiCustomizer;

/** Says in the OpenAPI document how large what comes in may be, as {@link Bounds} has it. Dates have no keyword there. */
final class BoundsInDocument implements GlobalOpenApiCustomizer {

    private static final Set<String> WITHOUT_LENGTH =
            Set.of("date", "date-time", "time-local", "uuid", "binary", "byte");

    @Override
    public void customise(OpenAPI api) {
        Map<String, Schema> named = api.getComponents().getSchemas();
        Set<Schema<?>> seen = Collections.newSetFromMap(new IdentityHashMap<>());
        api.getPaths().values().stream()
                .flatMap(path -> path.readOperations().stream())
                .forEach(operation -> {
                    if (operation.getParameters() != null) {
                        operation.getParameters().forEach(p -> bound(p.getSchema(), named, seen));
                    }
                    if (operation.getRequestBody() != null
                            && operation.getRequestBody().getContent() != null) {
                        operation
                                .getRequestBody()
                                .getContent()
                                .values()
                                .forEach(media -> bound(media.getSchema(), named, seen));
                    }
                });
    }

    private static void bound(@Nullable Schema<?> schema, Map<String, Schema> named, Set<Schema<?>> seen) {
        if (schema == null || !seen.add(schema)) {
            return;
        }
        if (schema.get$ref() != null) {
            bound(named.get(schema.get$ref().substring(schema.get$ref().lastIndexOf('/') + 1)), named, seen);
            return;
        }
        if (is(schema, "integer") || is(schema, "number")) {
            BigDecimal most = BigDecimal.valueOf("int32".equals(schema.getFormat()) ? Bounds.WHOLE : Bounds.NUMBER);
            schema.setMinimum(most.negate());
            schema.setMaximum(most);
        } else if (is(schema, "string") && schema.getEnum() == null && !WITHOUT_LENGTH.contains(format(schema))) {
            schema.setMaxLength(Bounds.TEXT);
        } else if (is(schema, "array")) {
            schema.setMaxItems(Bounds.LIST);
        }
        bound(schema.getItems(), named, seen);
        if (schema.getAdditionalProperties() instanceof Schema<?> values) {
            bound(values, named, seen);
        }
        if (schema.getProperties() != null) {
            schema.getProperties().values().forEach(property -> bound(property, named, seen));
        }
        each(schema.getOneOf(), named, seen);
        each(schema.getAllOf(), named, seen);
        each(schema.getAnyOf(), named, seen);
    }

    private static void each(@Nullable List<Schema> schemas, Map<String, Schema> named, Set<Schema<?>> seen) {
        if (schemas != null) {
            schemas.forEach(schema -> bound(schema, named, seen));
        }
    }

    private static boolean is(Schema<?> schema, String type) {
        return type.equals(schema.getType())
                || schema.getTypes() != null && schema.getTypes().contains(type);
    }

    private static String format(Schema<?> schema) {
        return schema.getFormat() == null ? "" : schema.getFormat();
    }
}
