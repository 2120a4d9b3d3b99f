package sharpkestrel.demo.scene;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import sharpkestrel.demo.sensor.Channel;
import sharpkestrel.demo.sensor.Instrument;
import sharpkestrel.demo.sensor.Sensor;
import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.Acquisition.Calibration;
import sharpkestrel.raster.Band;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.SampleType;

/**
 * One acquisition: a sensor over the sound at one moment, with its gains.
 *
 * @param brightest reflectance of the level surface that fills the range
 * @param shifts of each multispectral band against the panchromatic one, right and down, in multispectral pixels
 */
public record Scene(
    String name,
    Sensor sensor,
    Conditions conditions,
    double brightest,
    double[][] shifts,
    Instrument instrument) {

  /** Through the instrument of the archipelago. */
  public Scene(
      String name, Sensor sensor, Conditions conditions, double brightest, double[][] shifts) {
    this(name, sensor, conditions, brightest, shifts, Instrument.SIX_BANDS);
  }

  /** A band's; {@code band} -1 is the panchromatic one. */
  private Channel channel(int band) {
    return band < 0 ? instrument.pan().orElseThrow() : instrument.bands().get(band);
  }

  /** The bands as files have them. */
  public List<Band> bands(SampleType type) {
    return instrument.bands().stream().map(channel -> channel.band(type)).toList();
  }

  /** Radiance, W/m2/sr/um, of one unit of signal: reflectance of a white level surface times the sine of the sun. */
  private double radiance(int band) {
    double irradiance = channel(band).irradiance();
    double distance = bare().sunDistance();
    return irradiance / Math.PI / (distance * distance);
  }

  /** Radiance of one number; {@code band} -1 is the panchromatic one. */
  public double gain(int band) {
    return radiance(band) / scale(band);
  }

  /** The number, before noise, of one unit of signal. */
  public double scale(int band) {
    double sine = Math.sin(Math.toRadians(conditions.sun().elevation()));
    return instrument.answer().full() / (brightest * (band < 0 ? 0.92 : 1) * sine);
  }

  private Acquisition bare() {
    return new Acquisition(
        conditions.time(),
        conditions.sun().elevation(),
        conditions.sun().azimuth(),
        conditions.offNadir(),
        conditions.viewAzimuth(),
        Map.of());
  }

  /** The same moment and gains through another sensor. */
  public Scene through(Sensor other) {
    return new Scene(name, other, conditions, brightest, shifts, instrument);
  }

  /** What the delivery says about it. */
  public Acquisition acquisition() {
    Map<BandRole, Calibration> calibration = new EnumMap<>(BandRole.class);
    if (instrument.hasGains()) {
      instrument
          .pan()
          .ifPresent(
              pan -> calibration.put(BandRole.PAN, new Calibration(gain(-1), 0, pan.irradiance())));
      for (int b = 0; b < instrument.bands().size(); b++) {
        Channel band = instrument.bands().get(b);
        calibration.put(band.role(), new Calibration(gain(b), 0, band.irradiance()));
      }
    }
    Acquisition bare = bare();
    return new Acquisition(
        bare.time(),
        bare.sunElevation(),
        bare.sunAzimuth(),
        bare.viewOffNadir(),
        bare.viewAzimuth(),
        calibration);
  }
}
