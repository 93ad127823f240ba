package knollfield.app.shared;

import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import java.lang.reflect.AnnotatedParameterizedType;
import java.lang.reflect.AnnotatedType;
import java.lang.reflect.RecordComponent;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.YearMonth;
import java.time.ZonedDateTime;
import java.util.Arrays;
import java.util.Collection;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import knollfield.app.problem.BadValue;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.BeanDescription;
import tools.jackson.databind.DeserializationConfig;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.ValueDeserializer;
import tools.jackson.databind.cfg.MapperConfig;
import tools.jackson.databind.deser.ValueDeserializerModifier;
import tools.jackson.databind.deser.std.DelegatingDeserializer;
import tools.jackson.databind.introspect.Annotated;
import tools.jackson.databind.introspect.AnnotatedMember;
import tools.jackson.databind.introspect.AnnotatedParameter;
import tools.jackson.databind.introspect.JacksonAnnotationIntrospector;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.module.SimpleModule;
import tools.jackson.databind.type.CollectionType;

/**
 * How bodies of requests are read: what a record does not call {@code @Nullable} must be there, and everything keeps within
 * {@link Bounds}. What is stored is read without this, so that a closer bound never shuts out what is on file.
 */
final class StrictJson {

    private StrictJson() {}

    /** {@code mapper}, and strict. */
    static JsonMapper of(JsonMapper mapper) {
        SimpleModule module = new SimpleModule("bounds");
        module.setDeserializerModifier(new Bounded());
        return mapper.rebuild()
                .annotationIntrospector(new Required())
                .addModule(module)
                .build();
    }

    private static final class Required extends JacksonAnnotationIntrospector {

        private static final long serialVersionUID = 1L;

        @Override
        public Boolean hasRequiredMarker(MapperConfig<?> config, AnnotatedMember member) {
            return component(member)
                    .filter(c -> !nullable(c.getAnnotatedType()))
                    .isPresent();
        }

        @Override
        public JsonSetter.Value findSetterInfo(MapperConfig<?> config, Annotated annotated) {
            if (!(annotated instanceof AnnotatedMember member)) {
                return super.findSetterInfo(config, annotated);
            }
            return component(member)
                    .map(RecordComponent::getAnnotatedType)
                    .map(type -> JsonSetter.Value.construct(
                            nullable(type) ? null : Nulls.FAIL, nullableInside(type) ? null : Nulls.FAIL))
                    .orElseGet(() -> super.findSetterInfo(config, annotated));
        }

        private static Optional<RecordComponent> component(AnnotatedMember member) {
            Class<?> type = member.getDeclaringClass();
            if (!type.isRecord() || !type.getName().startsWith("knollfield.")) {
                return Optional.empty();
            }
            RecordComponent[] all = type.getRecordComponents();
            return member instanceof AnnotatedParameter parameter
                    ? Optional.of(parameter.getIndex())
                            .filter(i -> i < all.length)
                            .map(i -> all[i])
                    : Arrays.stream(all)
                            .filter(c -> c.getName().equals(member.getName()))
                            .findFirst();
        }

        private static boolean nullable(AnnotatedType type) {
            return type.isAnnotationPresent(Nullable.class);
        }

        private static boolean nullableInside(AnnotatedType type) {
            return type instanceof AnnotatedParameterizedType many
                    && Arrays.stream(many.getAnnotatedActualTypeArguments()).anyMatch(Required::nullable);
        }
    }

    private static final class Bounded extends ValueDeserializerModifier {

        private static final long serialVersionUID = 1L;

        @Override
        public ValueDeserializer<?> modifyDeserializer(
                DeserializationConfig config, BeanDescription.Supplier bean, ValueDeserializer<?> deserializer) {
            Class<?> type = bean.getBeanClass();
            if (type == String.class) {
                return new Checked(deserializer, v -> Bounds.wrong((String) v));
            }
            if (type == BigDecimal.class) {
                return new Checked(deserializer, v -> Bounds.wrong((BigDecimal) v));
            }
            if (type == double.class || type == Double.class) {
                return new Checked(deserializer, v -> Bounds.wrong((double) v));
            }
            if (type == long.class || type == Long.class) {
                return new Checked(deserializer, v -> Bounds.wrong((long) v));
            }
            if (type == int.class || type == Integer.class) {
                return new Checked(deserializer, v -> Bounds.wrong((int) v));
            }
            if (type == LocalDate.class
                    || type == LocalDateTime.class
                    || type == YearMonth.class
                    || type == Instant.class
                    || type == OffsetDateTime.class
                    || type == ZonedDateTime.class) {
                return new Checked(deserializer, v -> Bounds.wrong((java.time.temporal.TemporalAccessor) v));
            }
            return deserializer;
        }

        @Override
        public ValueDeserializer<?> modifyCollectionDeserializer(
                DeserializationConfig config,
                CollectionType type,
                BeanDescription.Supplier bean,
                ValueDeserializer<?> deserializer) {
            return new Checked(
                    deserializer,
                    v -> ((Collection<?>) v).size() <= Bounds.LIST
                            ? Optional.empty()
                            : Optional.of(String.format(Locale.ROOT, "At most %,d entries.", Bounds.LIST)));
        }
    }

    private static final class Checked extends DelegatingDeserializer {

        private final Function<Object, Optional<String>> wrong;

        Checked(ValueDeserializer<?> inner, Function<Object, Optional<String>> wrong) {
            super(inner);
            this.wrong = wrong;
        }

        @Override
        protected ValueDeserializer<?> newDelegatingInstance(ValueDeserializer<?> inner) {
            return new Checked(inner, wrong);
        }

        @Override
        public @Nullable Object deserialize(JsonParser parser, DeserializationContext context) {
            Object value = super.deserialize(parser, context);
            Optional<String> words = Optional.ofNullable(value).flatMap(wrong);
            if (words.isPresent()) {
                throw new BadValue(parser, Objects.requireNonNull(handledType()), words.get());
            }
            return value;
        }
    }
}
