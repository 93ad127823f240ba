package knollfield.app.outbox;

import static org.assertj.core.api.Assertions.assertThat;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import knollfield.app.Client;
import knollfield.app.Given;
import knollfield.app.Server;
import knollfield.app.security.CurrentPerson;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.transaction.support.TransactionTemplate;

/** The server stops in the middle: each message goes once, or somebody is asked. */
class SenderTest {

    @RegisterExtension
    static final Server SERVER = Server.fresh();

    private final Sender sender = SERVER.bean(Sender.class);
    private final OutboxRepository repository = SERVER.bean(OutboxRepository.class);
    private final JdbcClient jdbc = SERVER.jdbc();

    private long put(Channel channel, String place) {
        Client ines = SERVER.as("ines");
        long vehicle = Given.vehicle(SERVER, ines, "");
        long owner = jdbc.sql("SELECT owner_id FROM vehicle WHERE id = :id")
                .param("id", vehicle)
                .query(Long.class)
                .single();
        return SERVER.bean(CurrentPerson.class)
                .as(
                        "test",
                        () -> SERVER.bean(TransactionTemplate.class)
                                .execute(s -> SERVER.bean(Outbox.class)
                                        .put(new Message.Draft(
                                                MessageKind.REMINDER,
                                                channel,
                                                owner,
                                                Optional.empty(),
                                                "Tamsin Orde",
                                                place,
                                                "Subject",
                                                "Words",
                                                List.of(vehicle)))));
    }

    private Message.State state(long id) {
        return repository.find(id).orElseThrow().state();
    }

    private boolean claim(long id, String via, Instant at) {
        return Boolean.TRUE.equals(SERVER.bean(TransactionTemplate.class).execute(t -> repository.claim(id, via, at)));
    }

    private static long files(Path folder, String name) throws Exception {
        try (Stream<Path> all = Files.list(folder)) {
            return all.filter(f -> f.getFileName().toString().contains(name)).count();
        }
    }

    @Test
    void aFileHalfHandedOverIsWrittenAgainAndIsStillOne() throws Exception {
        synchronized (sender) {
            long id = put(Channel.TEXT, "0555 1");
            assertThat(claim(id, Sender.FILE, Instant.now())).isTrue();
            assertThat(claim(id, Sender.FILE, Instant.now()))
                    .as("nobody else takes it")
                    .isFalse();
            String name = "text-%06d".formatted(id);
            Path folder = SERVER.bean(Folder.class).path();
            SERVER.bean(Folder.class).write(name + ".txt", new byte[] {1});
            // here it stops, and starts again
            sender.recover();
            assertThat(state(id)).isEqualTo(Message.State.WAITING);
            sender.run();
            assertThat(state(id)).isEqualTo(Message.State.SENT);
            assertThat(files(folder, name)).isEqualTo(1);
            assertThat(Files.readString(folder.resolve(name + ".txt"))).isEqualTo("To: 0555 1\n\nWords\n");
            sender.recover();
            sender.run();
            assertThat(state(id)).isEqualTo(Message.State.SENT);
        }
    }

    @Test
    void whatAServerMayHaveTakenIsNotSentAgainUnasked() {
        GreenMail mail = new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
        mail.start();
        jdbc.sql(
                        "UPDATE mail_server SET host = '127.0.0.1', port = :port, security = 'NONE', sender = 'desk@w.example'")
                .param("port", mail.getSmtp().getPort())
                .update();
        try {
            synchronized (sender) {
                long before = put(Channel.EMAIL, "a@home.example");
                long during = put(Channel.EMAIL, "b@home.example");
                assertThat(claim(during, Sender.SMTP, Instant.now())).isTrue();
                // here it stops, and starts again
                sender.recover();
                assertThat(state(during)).isEqualTo(Message.State.UNSURE);
                sender.run();
                sender.run();
                assertThat(state(before)).isEqualTo(Message.State.SENT);
                assertThat(state(during)).isEqualTo(Message.State.UNSURE);
                assertThat(mail.getReceivedMessages()).hasSize(1);

                Client ines = SERVER.as("ines");
                ines.post("/api/outbox/%d/again".formatted(during), "{}").ok();
                sender.run();
                assertThat(state(during)).isEqualTo(Message.State.SENT);
                assertThat(mail.getReceivedMessages()).hasSize(2);
                ines.post("/api/outbox/%d/gone".formatted(during), "{}").problem(409, "conflict");
            }
        } finally {
            mail.stop();
            jdbc.sql("UPDATE mail_server SET host = ''").update();
        }
    }

    @Test
    void whatIsNotTakenWaitsLongerEachTimeAndIsThenShown() {
        jdbc.sql("UPDATE mail_server SET host = '127.0.0.1', port = 1, security = 'NONE', sender = 'desk@w.example'")
                .update();
        try {
            synchronized (sender) {
                long id = put(Channel.EMAIL, "c@home.example");
                for (int tries = 1; tries <= 6; tries++) {
                    sender.run();
                    Message m = repository.find(id).orElseThrow();
                    assertThat(m.tries()).isEqualTo(tries);
                    assertThat(m.failure()).contains("is not reached");
                    assertThat(m.state()).isEqualTo(tries == 6 ? Message.State.FAILED : Message.State.WAITING);
                    sender.run();
                    assertThat(repository.find(id).orElseThrow().tries())
                            .as("not before its time")
                            .isEqualTo(tries);
                    jdbc.sql("UPDATE outbox_message SET next_try_at = made_at WHERE id = :id")
                            .param("id", id)
                            .update();
                }
                assertThat(SERVER.as("ines")
                                .get("/api/outbox/counts")
                                .ok()
                                .json()
                                .get("failed")
                                .asInt())
                        .isEqualTo(1);
            }
        } finally {
            jdbc.sql("UPDATE mail_server SET host = ''").update();
        }
    }
}
