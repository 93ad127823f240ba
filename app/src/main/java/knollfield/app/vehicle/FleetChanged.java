package knollfield.app.vehicle;

/** What a fleet is called, how it is reached or what it can spare is no longer what it was. */
public record FleetChanged(long fleetId) {}
