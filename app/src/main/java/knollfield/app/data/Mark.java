package knollfield.app.data;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.zip.CRC32C;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * What stands beside the database, so that a file that is cut, emptied or another's is known for what it is.
 *
 * @param form {@value #FORM}
 * @param written how many times the file had been written to, at least
 * @param closed whether the server closed it in order; then size and sum are those of the whole file
 * @param size bytes
 * @param sum CRC-32C
 */
record Mark(String form, long written, boolean closed, long size, long sum) {

    static final String FORM = "knollfield";

    private static final JsonMapper JSON = JsonMapper.builder().build();

    static Mark running(long written) {
        return new Mark(FORM, written, false, 0, 0);
    }

    static Mark closed(long written, Path database) throws IOException {
        return new Mark(FORM, written, true, Files.size(database), sum(database));
    }

    static Optional<Mark> read(Path file) throws IOException {
        if (!Files.exists(file)) {
            return Optional.empty();
        }
        try {
            return Optional.of(JSON.readValue(Files.readString(file), Mark.class))
                    .filter(m -> FORM.equals(m.form()));
        } catch (JacksonException e) {
            // written whole or not at all; what is not readable is no mark
            return Optional.empty();
        }
    }

    void write(Path file) throws IOException {
        DataFolder.write(file, JSON.writeValueAsString(this));
    }

    boolean fits(Path database) throws IOException {
        return !closed || (Files.size(database) == size && sum(database) == sum);
    }

    private static long sum(Path file) throws IOException {
        CRC32C sum = new CRC32C();
        byte[] buffer = new byte[1 << 16];
        try (InputStream in = Files.newInputStream(file)) {
            for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) {
                sum.update(buffer, 0, read);
            }
        }
        return sum.getValue();
    }
}
