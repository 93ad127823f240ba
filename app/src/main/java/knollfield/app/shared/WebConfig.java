package knollfield.app.shared;

import java.io.IOException;
import java.time.Duration;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.convert.TypeDescriptor;
import org.springframework.core.convert.converter.GenericConverter;
import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.Resource;
import org.springframework.format.FormatterRegistry;
import org.springframework.http.CacheControl;
import org.springframework.http.converter.HttpMessageConverters;
import org.springframework.http.converter.json.JacksonJsonHttpMessageConverter;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.resource.EncodedResourceResolver;
import org.springframework.web.servlet.resource.PathResourceResolver;
import tools.jackson.databind.json.JsonMapper;

/** Serves the interface: files as they are, every other address outside /api as the one page. */
@Configuration
class WebConfig implements WebMvcConfigurer {

    private final JsonMapper json;

    WebConfig(JsonMapper json) {
        this.json = json;
    }

    @Override
    public void configureMessageConverters(HttpMessageConverters.ServerBuilder converters) {
        converters.withJsonConverter(new JacksonJsonHttpMessageConverter(StrictJson.of(json)));
    }

    /** Addresses keep within {@link Bounds} as bodies do. */
    @Override
    public void addFormatters(FormatterRegistry registry) {
        registry.addConverter(new Within<>(LocalDate.class, LocalDate::parse, Bounds::wrong));
        registry.addConverter(new Within<>(YearMonth.class, YearMonth::parse, Bounds::wrong));
        registry.addConverter(new Within<>(Integer.class, Integer::valueOf, Bounds::wrong));
        registry.addConverter(new Within<>(Long.class, Long::valueOf, Bounds::wrong));
        registry.addConverter(new Within<>(Double.class, Double::valueOf, Bounds::wrong));
    }

    private record Within<T>(Class<T> type, Function<String, T> read, Function<T, Optional<String>> wrong)
            implements GenericConverter {

        @Override
        public Set<ConvertiblePair> getConvertibleTypes() {
            return Set.of(new ConvertiblePair(String.class, type));
        }

        @Override
        public @Nullable Object convert(@Nullable Object text, TypeDescriptor from, TypeDescriptor to) {
            if (text == null || text.toString().isBlank()) {
                return null;
            }
            T value = read.apply(text.toString().strip());
            wrong.apply(value).ifPresent(words -> {
                throw new IllegalArgumentException(words);
            });
            return value;
        }
    }

    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        registry.addResourceHandler("/assets/**")
                .addResourceLocations("classpath:/static/assets/")
                .setCacheControl(CacheControl.maxAge(Duration.ofDays(365)).immutable())
                .resourceChain(true)
                // packed when they were built (web/compress.js)
                .addResolver(new EncodedResourceResolver());
        registry.addResourceHandler("/**")
                .addResourceLocations("classpath:/static/")
                .setCacheControl(CacheControl.noCache())
                .resourceChain(false)
                .addResolver(new OnePage());
    }

    private static final class OnePage extends PathResourceResolver {
        @Override
        protected @Nullable Resource getResource(String path, Resource location) throws IOException {
            Resource file = super.getResource(path, location);
            if (file != null || path.startsWith("api/") || path.contains(".")) {
                return file;
            }
            return new ClassPathResource("/static/index.html");
        }
    }
}
