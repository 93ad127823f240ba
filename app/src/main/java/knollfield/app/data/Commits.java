package knollfield.app.data;

import javax.sql.DataSource;
import org.springframework.jdbc.support.JdbcTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.DefaultTransactionStatus;

/** Transactions whose changes are on the disk when they have ended; none begins that the disk has no room for. */
final class Commits extends JdbcTransactionManager {

    private static final long serialVersionUID = 1L;

    private final transient Flusher flusher;
    private final transient Disk disk;

    Commits(DataSource dataSource, Flusher flusher, Disk disk) {
        super(dataSource);
        this.flusher = flusher;
        this.disk = disk;
    }

    @Override
    protected void doBegin(Object transaction, TransactionDefinition definition) {
        if (!definition.isReadOnly()) {
            disk.check();
        }
        super.doBegin(transaction, definition);
    }

    @Override
    protected void doCommit(DefaultTransactionStatus status) {
        super.doCommit(status);
        if (!status.isReadOnly()) {
            flusher.toDisk();
        }
    }
}
