package knollfield.app.feed;

import java.util.List;

/** Units in a fleet's vehicles that say what their odometers show; a real one may stand in the place of the stand-in. */
interface Telematics {

    /** What the units of a feed's vehicles say now. */
    List<Feed.Line> read(Feed feed);
}
