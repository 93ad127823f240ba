package knollfield.app.data;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import java.nio.file.Path;
import javax.sql.DataSource;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.jdbc.datasource.DriverManagerDataSource;
import org.springframework.transaction.PlatformTransactionManager;

/** Opens the data. */
@Configuration
class DataConfig {

    private static final int CONNECTIONS = 10;

    @Bean
    DataFolder dataFolder(@Value("${knollfield.data:./data/workshop}") Path base) {
        return new DataFolder(base);
    }

    /** @param memory name of a database in memory instead, for trial starts that keep nothing; empty: the folder's */
    @Bean
    OpenData openData(DataFolder folder, @Value("${knollfield.memory:}") String memory) {
        return memory.isEmpty() ? OpenData.of(folder) : OpenData.inMemory(memory);
    }

    @Bean(destroyMethod = "")
    DataSource dataSource(OpenData data) {
        return data.pool();
    }

    /** It depends on the pool, so that it ends before the file is closed. */
    @Bean
    Flusher flusher(OpenData data, DataSource dataSource) {
        return new Flusher(beside(data.pool()));
    }

    @Bean
    PlatformTransactionManager transactionManager(DataSource dataSource, Flusher flusher, Disk disk) {
        return new Commits(dataSource, flusher, disk);
    }

    /**
     * Connections to the same data that are not of the pool: whoever commits holds one of the pool's until the disk has it, so
     * that what brings it there may not wait for one of them.
     */
    static DataSource beside(HikariDataSource pool) {
        return new DriverManagerDataSource(pool.getJdbcUrl(), Database.USER, pool.getPassword());
    }

    static HikariDataSource pool(String url, String password) {
        HikariConfig config = new HikariConfig();
        config.setJdbcUrl(url);
        config.setUsername(Database.USER);
        config.setPassword(password);
        config.setMaximumPoolSize(CONNECTIONS);
        // a change outside a transaction would be answered before it is on the disk; so it is none
        config.setAutoCommit(false);
        return new HikariDataSource(config);
    }
}
