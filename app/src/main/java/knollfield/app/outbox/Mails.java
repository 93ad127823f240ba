package knollfield.app.outbox;

import jakarta.mail.AuthenticationFailedException;
import jakarta.mail.MessagingException;
import jakarta.mail.SendFailedException;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Date;
import java.util.Properties;
import knollfield.app.settings.WorkshopSettings;
import knollfield.app.shared.WorkshopClock;
import org.springframework.mail.MailAuthenticationException;
import org.springframework.mail.MailException;
import org.springframework.mail.MailSendException;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import org.springframework.stereotype.Component;

/** Mail as RFC 5322 has it: made, written out, handed to a server. */
@Component
class Mails {

    private static final String PATIENCE = Long.toString(Duration.ofSeconds(15).toMillis());

    private final WorkshopSettings settings;
    private final WorkshopClock clock;

    Mails(WorkshopSettings settings, WorkshopClock clock) {
        this.settings = settings;
        this.clock = clock;
    }

    /** Keeps its Message-ID, so that a server or a reader that gets it twice can tell. */
    private static final class Mail extends MimeMessage {

        private final String id;

        Mail(String id) {
            super(Session.getInstance(new Properties()));
            this.id = id;
        }

        @Override
        protected void updateMessageID() throws MessagingException {
            setHeader("Message-ID", id);
        }
    }

    /**
     * A message of plain text.
     *
     * @param key part of its Message-ID
     * @param from an address
     * @param toName may be empty
     */
    MimeMessage mail(String key, String from, String toName, String to, String subject, String body) {
        String host = from.substring(from.indexOf('@') + 1);
        try {
            Mail mail = new Mail("<knollfield-%s@%s>".formatted(key, host));
            String utf8 = StandardCharsets.UTF_8.name();
            mail.setFrom(new InternetAddress(from, settings.get().name(), utf8));
            mail.setRecipient(
                    jakarta.mail.Message.RecipientType.TO,
                    toName.isEmpty() ? new InternetAddress(to, true) : new InternetAddress(to, toName, utf8));
            mail.setSubject(subject.replaceAll("\\R+", " "), utf8);
            mail.setText(body, utf8);
            mail.setSentDate(Date.from(clock.instant()));
            mail.saveChanges();
            return mail;
        } catch (MessagingException | IOException e) {
            throw new IllegalStateException("addresses are checked before they are kept", e);
        }
    }

    /** As a file that a mail program opens. */
    static byte[] written(MimeMessage mail) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try {
            mail.writeTo(bytes);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (MessagingException e) {
            throw new IllegalStateException(e);
        }
        return bytes.toByteArray();
    }

    /**
     * Hands a message to a server.
     *
     * @throws NotTaken where the server said no, or was not reached
     * @throws MayHaveGone where the line broke while it was being handed over
     */
    void send(MailServer server, MimeMessage mail) throws NotTaken, MayHaveGone {
        JavaMailSenderImpl sender = new JavaMailSenderImpl();
        sender.setHost(server.host());
        sender.setPort(server.port());
        if (!server.userName().isEmpty()) {
            sender.setUsername(server.userName());
            sender.setPassword(server.password());
        }
        Properties p = sender.getJavaMailProperties();
        p.put("mail.smtp.auth", Boolean.toString(!server.userName().isEmpty()));
        p.put("mail.smtp.starttls.enable", Boolean.toString(server.security() == MailServer.Security.STARTTLS));
        p.put("mail.smtp.starttls.required", Boolean.toString(server.security() == MailServer.Security.STARTTLS));
        p.put("mail.smtp.ssl.enable", Boolean.toString(server.security() == MailServer.Security.TLS));
        p.put("mail.smtp.ssl.checkserveridentity", "true");
        p.put("mail.smtp.connectiontimeout", PATIENCE);
        p.put("mail.smtp.timeout", PATIENCE);
        p.put("mail.smtp.writetimeout", PATIENCE);
        try {
            sender.testConnection();
        } catch (AuthenticationFailedException e) {
            throw new NotTaken("The server does not take this user name and password: " + words(e), true);
        } catch (MessagingException e) {
            throw new NotTaken("%s:%d is not reached: %s".formatted(server.host(), server.port(), words(e)), true);
        }
        try {
            sender.send(mail);
        } catch (MailAuthenticationException e) {
            throw new NotTaken("The server does not take this user name and password: " + words(e), true);
        } catch (MailSendException e) {
            boolean refused = e.getFailedMessages().values().stream().anyMatch(f -> f instanceof SendFailedException);
            if (refused) {
                throw new NotTaken("The server refused it: " + words(e), false);
            }
            throw new MayHaveGone(words(e));
        } catch (MailException e) {
            throw new MayHaveGone(words(e));
        }
    }

    /** The innermost reason, which is the one that says something. */
    private static String words(Throwable e) {
        Throwable inner = e;
        if (e instanceof MailSendException m && !m.getFailedMessages().isEmpty()) {
            inner = m.getFailedMessages().values().iterator().next();
        }
        while (inner.getCause() != null) {
            inner = inner.getCause();
        }
        String said = inner.getMessage() == null || inner.getMessage().isBlank()
                ? inner.getClass().getSimpleName()
                : inner.getMessage().strip();
        return said.replaceAll("\\s+", " ");
    }
}
