package sharpkestrel.demo.sensor;

import sharpkestrel.geo.CoordinateMap;
import sharpkestrel.geo.Crs;
import sharpkestrel.geo.RpcFit;
import sharpkestrel.raster.CrsName;

/** What a sensor sees, in degrees. */
public final class SensorView implements RpcFit.View {

  private final Sensor sensor;
  private final CoordinateMap toDegrees;
  private final double[] ray = new double[4];

  /**
   * @param crs of the sensor's east and north
   */
  public SensorView(Sensor sensor, CrsName crs) {
    this.sensor = sensor;
    toDegrees = Crs.of(crs).to(Crs.of(Crs.WGS84));
  }

  /** The RPC of the sensor, for ellipsoidal heights from {@code low} to {@code high}. */
  public static RpcFit rpc(Sensor sensor, CrsName crs, double low, double high) {
    return RpcFit.of(new SensorView(sensor, crs), sensor.width(), sensor.height(), low, high);
  }

  @Override
  public void toGround(double col, double row, double height, double[] degrees) {
    sensor.ray(col, row, ray);
    degrees[0] = ray[0] + height * ray[2];
    degrees[1] = ray[1] + height * ray[3];
    toDegrees.apply(degrees, 1);
  }
}
