package knollfield.app.data;

import javax.sql.DataSource;
import org.springframework.context.annotation.Bean;

/**
 * Servers of tests that are not about the disk answer without waiting for it: where a device takes its time, that is most of
 * the time such a test takes. What waits and what does not is tried by {@link PowerCutTest} on files of its own.
 * Not annotated, so that only who names it has it.
 */
public class WithoutSync {

    @Bean
    Flusher flusher(OpenData data, DataSource dataSource) {
        return new Flusher(DataConfig.beside(data.pool()), "SELECT 1");
    }
}
