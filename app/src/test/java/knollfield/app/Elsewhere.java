package knollfield.app;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;

/** Asks from another address of this machine's loopback, for what is counted by the place it comes from. */
public final class Elsewhere {

    private final String place;

    /** @param place such as 127.0.0.7; each test its own */
    public Elsewhere(String place) {
        this.place = place;
    }

    /** The status of the answer; {@code json} is sent by POST, an empty one asks by GET. */
    public int status(Server server, String path, String json) {
        int port = URI.create(server.address()).getPort();
        byte[] body = json.getBytes(StandardCharsets.UTF_8);
        String head = "%s %s HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\nContent-Type: application/json\r\n"
                        .formatted(json.isEmpty() ? "GET" : "POST", path)
                + "Content-Length: %d\r\n\r\n".formatted(body.length);
        try (Socket socket = new Socket(InetAddress.getByName("127.0.0.1"), port, InetAddress.getByName(place), 0)) {
            socket.getOutputStream().write(head.getBytes(StandardCharsets.US_ASCII));
            socket.getOutputStream().write(body);
            InputStream in = socket.getInputStream();
            String answer = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            return Integer.parseInt(answer.split(" ", 3)[1]);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
