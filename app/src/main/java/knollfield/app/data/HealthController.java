package knollfield.app.data;

import java.sql.Connection;
import java.sql.SQLException;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** For programs that look after the server: whether it works, and nothing of what it holds. */
@RestController
class HealthController {

    private static final int PATIENCE_SECONDS = 3;

    private final OpenData data;
    private final Disk disk;

    HealthController(OpenData data, Disk disk) {
        this.data = data;
        this.disk = disk;
    }

    /**
     * @param data whether they answer
     * @param disk whether there is room to save
     */
    record Health(boolean data, Room disk) {}

    /** How much room there is. */
    enum Room {
        ENOUGH,
        LOW,
        FULL
    }

    /** 200 where work goes on, 503 where it does not. */
    @GetMapping("/api/health")
    ResponseEntity<Health> health() {
        Health health = new Health(answers(), room());
        boolean works = health.data() && health.disk() != Room.FULL;
        return ResponseEntity.status(works ? HttpStatus.OK : HttpStatus.SERVICE_UNAVAILABLE)
                .body(health);
    }

    private boolean answers() {
        try (Connection connection = data.pool().getConnection()) {
            return connection.isValid(PATIENCE_SECONDS);
        } catch (SQLException e) {
            return false;
        }
    }

    private Room room() {
        if (disk.full()) {
            return Room.FULL;
        }
        return disk.low() ? Room.LOW : Room.ENOUGH;
    }
}
