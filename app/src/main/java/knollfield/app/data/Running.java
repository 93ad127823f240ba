package knollfield.app.data;

import java.io.IOException;
import java.nio.file.Files;
import java.util.Optional;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * Which process has a database open, and where it answers.
 *
 * @param process its number
 * @param address such as {@code http://127.0.0.1:8080}
 */
record Running(long process, int port, String address) {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    static Optional<Running> of(DataFolder folder) {
        try {
            return Files.exists(folder.running())
                    ? Optional.of(JSON.readValue(Files.readString(folder.running()), Running.class))
                    : Optional.empty();
        } catch (IOException | JacksonException e) {
            // it only makes a sentence clearer
            return Optional.empty();
        }
    }

    void write(DataFolder folder) throws IOException {
        DataFolder.write(folder.running(), JSON.writeValueAsString(this));
    }
}
