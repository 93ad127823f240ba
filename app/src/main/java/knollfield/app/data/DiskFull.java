package knollfield.app.data;

import org.springframework.transaction.CannotCreateTransactionException;

/** There is no room on the disk for a change; nothing has been changed, and it goes on by itself when there is room. */
public class DiskFull extends CannotCreateTransactionException {

    private static final long serialVersionUID = 1L;

    DiskFull(String detail) {
        super(detail);
    }
}
