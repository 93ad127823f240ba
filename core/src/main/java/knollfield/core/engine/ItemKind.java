package knollfield.core.engine;

/** Kinds of renewable item. */
public enum ItemKind {
    TIMING_BELT(true),
    TIMING_CHAIN(true),
    TENSIONER(true),
    IDLER(true),
    GUIDE(true),
    WATER_PUMP(true),
    CAM_SEAL(false),
    CRANK_SEAL(false),
    THERMOSTAT(false),
    AUXILIARY_BELT(false),
    DAMPER(false),
    COOLANT(false),
    OIL(false),
    FASTENER(false),
    GASKET(false),
    ENGINE_MOUNT(false),
    ACCESSORY_TENSIONER(false),
    COOLANT_PIPE(false),
    CAM_ACTUATOR(false),
    COVER_GASKET(false),
    STRAINER(false);

    private final boolean carriesTheDrive;

    ItemKind(boolean carriesTheDrive) {
        this.carriesTheDrive = carriesTheDrive;
    }

    /** True where a failure of the item takes the timing drive with it. */
    public boolean carriesTheDrive() {
        return carriesTheDrive;
    }

    /** True where a limit of the book says when to inspect it, not when to renew it. */
    public boolean isInspected() {
        return this == TIMING_CHAIN || this == GUIDE;
    }

    /** True for the belt or chain itself. */
    public boolean isTheDrive() {
        return this == TIMING_BELT || this == TIMING_CHAIN;
    }
}
