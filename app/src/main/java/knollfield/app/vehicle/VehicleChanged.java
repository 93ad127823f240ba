package knollfield.app.vehicle;

/** Something a vehicle's forecast rests on has changed. */
public record VehicleChanged(long vehicleId) {}
