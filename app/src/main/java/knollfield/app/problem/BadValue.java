package knollfield.app.problem;

import tools.jackson.core.JsonParser;
import tools.jackson.databind.exc.MismatchedInputException;

/** A value in a body that is missing or out of every bound; its message is for whoever sent it. */
public class BadValue extends MismatchedInputException {

    private static final long serialVersionUID = 1L;

    public BadValue(JsonParser parser, Class<?> type, String words) {
        super(parser, words, type);
    }
}
