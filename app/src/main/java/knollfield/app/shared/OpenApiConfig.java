package knollfield.app.shared;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeName;
import com.fasterxml.jackson.databind.JavaType;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.converter.ModelConverters;
import io.swagger.v3.core.util.Json;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.MediaType;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.responses.ApiResponse;
import io.swagger.v3.oas.models.servers.Server;
import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import knollfield.app.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.customizers.GlobalOpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The OpenAPI document: what is required follows from JSpecify's {@code @Nullable} on the components of records. */
@Configuration
class OpenApiConfig {

    @Bean
    OpenAPI openApi() {
        return new OpenAPI()
                .addServersItem(new Server().url("/"))
                .info(new Info()
                        .title("Knollfield")
                        .version("1")
                        .description("Timing belt and chain work: due, built, booked, done. "
                                + "Distances in km, money in minor units of the workshop's currency, problems as RFC 9457. "
                                + "Days lie from %s to %s.".formatted(Bounds.FIRST_DAY, Bounds.LAST_DAY)));
    }

    @Bean
    ModelConverter requiredComponents() {
        return new RequiredComponents();
    }

    @Bean
    GlobalOpenApiCustomizer bounds() {
        return new BoundsInDocument();
    }

    /** Every call may be answered with a problem instead. */
    @Bean
    GlobalOpenApiCustomizer problems() {
        return api -> {
            ModelConverters.getInstance(true).readAll(Problem.class).forEach(api.getComponents()::addSchemas);
            ApiResponse problem = new ApiResponse()
                    .description("A problem (RFC 9457)")
                    .content(new Content()
                            .addMediaType(
                                    "application/problem+json",
                                    new MediaType().schema(new Schema<>().$ref("#/components/schemas/Problem"))));
            api.getPaths().values().stream()
                    .flatMap(path -> path.readOperations().stream())
                    .forEach(operation -> operation.getResponses().addApiResponse("default", problem));
        };
    }

    private static final class RequiredComponents implements ModelConverter {

        @Override
        public @Nullable Schema<?> resolve(
                AnnotatedType type, ModelConverterContext context, Iterator<ModelConverter> chain) {
            Schema<?> schema = chain.hasNext() ? chain.next().resolve(type, context, chain) : null;
            JavaType java = Json.mapper().constructType(type.getType());
            if (schema != null && java != null && java.getRawClass().isRecord()) {
                Schema<?> defined = schema.get$ref() == null
                        ? schema
                        : context.getDefinedModels()
                                .get(schema.get$ref().substring(schema.get$ref().lastIndexOf('/') + 1));
                if (defined != null) {
                    defined.setRequired(required(java.getRawClass()));
                }
            }
            if (java != null && java.getRawClass().isAnnotationPresent(JsonSubTypes.class)) {
                context.getDefinedModels().values().stream()
                        .filter(m -> m.getDiscriminator() != null
                                && java.getRawClass().getSimpleName().equals(m.getName()))
                        .forEach(m -> m.getDiscriminator().setMapping(kinds(java.getRawClass())));
            }
            return schema;
        }

        /** Which kind of a sealed type each value of its discriminator names. */
        private static Map<String, String> kinds(Class<?> sealed) {
            Map<String, String> kinds = new LinkedHashMap<>();
            for (JsonSubTypes.Type type :
                    sealed.getAnnotation(JsonSubTypes.class).value()) {
                kinds.put(
                        type.value().getAnnotation(JsonTypeName.class).value(),
                        "#/components/schemas/" + type.value().getSimpleName());
            }
            return kinds;
        }

        private static List<String> required(Class<?> record) {
            return Arrays.stream(record.getRecordComponents())
                    .filter(c -> !isNullable(c))
                    .map(RecordComponent::getName)
                    .toList();
        }

        private static boolean isNullable(RecordComponent component) {
            return component.getAnnotatedType().isAnnotationPresent(Nullable.class);
        }
    }
}
