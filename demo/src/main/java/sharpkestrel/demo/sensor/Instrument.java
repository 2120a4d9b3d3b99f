package sharpkestrel.demo.sensor;

import static sharpkestrel.raster.BandRole.BLUE;
import static sharpkestrel.raster.BandRole.GREEN;
import static sharpkestrel.raster.BandRole.NEAR_INFRARED;
import static sharpkestrel.raster.BandRole.OTHER;
import static sharpkestrel.raster.BandRole.PAN;
import static sharpkestrel.raster.BandRole.RED;
import static sharpkestrel.raster.BandRole.RED_EDGE;
import static sharpkestrel.raster.BandRole.VIOLET;
import static sharpkestrel.raster.BandRole.YELLOW;

import java.util.List;
import java.util.Optional;
import sharpkestrel.demo.words.Labelled;
import sharpkestrel.raster.SampleType;

/** Made-up instruments: what their pixels measure, which bands they have, how they answer and blur, and what they deliver. */
public enum Instrument implements Labelled {
  /** In orbit: 0.5 m panchromatic, six bands at 2 m, 11 bits, with gains. */
  SIX_BANDS(
      0.5,
      4,
      new Channel("pan", PAN, 1640, 0.06f, 0.21f, 0.27f, 0.27f, 0.13f, 0.06f),
      Channel.sixOfTheSpectrum(),
      new Answer(2047, 1, new double[] {0.42, 0.50}, new double[] {0.34, 0.40}, 1, 0),
      true,
      false),
  /** In orbit: 0.3 m panchromatic, eight bands at 1.2 m, 11 bits, with gains. */
  EIGHT_BANDS(
      0.3,
      4,
      Channel.of(PAN, 0.03, 0.17, 0.27, 0.30, 0.16, 0.07),
      List.of(
          Channel.of(VIOLET, 1, 0.05, 0, 0, 0, 0),
          Channel.of(BLUE, 0.08, 1, 0.08, 0, 0, 0),
          Channel.of(GREEN, 0, 0.1, 1, 0.02, 0, 0),
          Channel.of(YELLOW, 0, 0, 0.45, 0.55, 0, 0),
          Channel.of(RED, 0, 0, 0.05, 1, 0.03, 0),
          Channel.of(RED_EDGE, 0, 0, 0, 0.06, 1, 0.04),
          Channel.of(NEAR_INFRARED, 0, 0, 0, 0, 0.06, 1),
          Channel.of("near infrared 2", OTHER, 0, 0, 0, 0, -0.08, 1.08)),
      new Answer(2047, 1, new double[] {0.40, 0.46}, new double[] {0.34, 0.38}, 1.2, 0),
      true,
      false),
  /** In orbit: 0.7 m panchromatic, four broad bands at 2.8 m, 10 bits, numbers alone, softer, its bands farther off each other. */
  FOUR_BANDS(
      0.7,
      4,
      Channel.of(PAN, 0.02, 0.14, 0.24, 0.30, 0.18, 0.12),
      List.of(
          Channel.of(BLUE, 0.3, 1, 0.15, 0, 0, 0),
          Channel.of(GREEN, 0, 0.25, 1, 0.1, 0, 0),
          Channel.of(RED, 0, 0, 0.2, 1, 0.12, 0),
          Channel.of(NEAR_INFRARED, 0, 0, 0, 0.02, 0.3, 1)),
      new Answer(1023, 1, new double[] {0.55, 0.64}, new double[] {0.42, 0.48}, 2.4, 0),
      false,
      false),
  /** In orbit: 1 m panchromatic, four bands at 4 m, 12 bits, with gains. */
  METRE(
      1,
      4,
      Channel.of(PAN, 0.01, 0.16, 0.26, 0.30, 0.17, 0.10),
      List.of(
          Channel.of(BLUE, 0.1, 1, 0.05, 0, 0, 0),
          Channel.of(GREEN, 0, 0.1, 1, 0.02, 0, 0),
          Channel.of(RED, 0, 0, 0.05, 1, 0.05, 0),
          Channel.of(NEAR_INFRARED, 0, 0, 0, 0, 0.15, 1)),
      new Answer(4095, 1, new double[] {0.45, 0.52}, new double[] {0.36, 0.42}, 1, 0),
      true,
      false),
  /** In orbit: colours alone at 0.5 m, sharpened there, 8 bits with a tone curve and marks of compression, no gains. */
  COLOUR(
      0.5,
      1,
      null,
      List.of(
          Channel.of(RED, 0, 0, 0.1, 1, 0.05, 0),
          Channel.of(GREEN, 0, 0.15, 1, 0.05, 0, 0),
          Channel.of(BLUE, 0.1, 1, 0.1, 0, 0, 0)),
      new Answer(255, 1.7, new double[] {0.42, 0.50}, new double[] {0.46, 0.52}, 0.6, 80),
      false,
      false),
  /** A frame camera in an aircraft: colours alone at 0.3 m, 8 bits with a tone curve, compressed; delivered as an ortho. */
  AIR_COLOUR(
      0.3,
      1,
      null,
      List.of(
          Channel.of(RED, 0, 0, 0.12, 1, 0, 0),
          Channel.of(GREEN, 0, 0.2, 1, 0.08, 0, 0),
          Channel.of(BLUE, 0.2, 1, 0.12, 0, 0, 0)),
      new Answer(255, 1.9, new double[] {0.38, 0.40}, new double[] {0.38, 0.40}, 0.3, 86),
      false,
      true),
  /** A frame camera in an aircraft: colours and near infrared at 0.3 m, 16 bits, numbers alone; delivered as an ortho. */
  AIR_FOUR(
      0.3,
      1,
      null,
      List.of(
          Channel.of(RED, 0, 0, 0.12, 1, 0, 0),
          Channel.of(GREEN, 0, 0.2, 1, 0.08, 0, 0),
          Channel.of(BLUE, 0.2, 1, 0.12, 0, 0, 0),
          Channel.of(NEAR_INFRARED, 0, 0, 0, 0, 0.25, 1)),
      new Answer(16_383, 1, new double[] {0.36, 0.38}, new double[] {0.36, 0.38}, 0.3, 0),
      false,
      true);

  /**
   * How it answers.
   *
   * @param full largest number; 0 is kept for no data
   * @param curve numbers go as light to the power of one over it
   * @param panBlur across and along the track in pixels, and {@code blur} of the bands
   * @param misaligned how far bands lie off each other, as a multiple of what the first instrument has
   * @param quality of the compression, as of JPEG; 0 for none
   */
  public record Answer(
      double full, double curve, double[] panBlur, double[] blur, double misaligned, int quality) {}

  private final double gsd;
  private final int ratio;
  private final Channel pan;
  private final List<Channel> bands;
  private final Answer answer;
  private final boolean gains;
  private final boolean airborne;

  Instrument(
      double gsd,
      int ratio,
      Channel pan,
      List<Channel> bands,
      Answer answer,
      boolean gains,
      boolean airborne) {
    this.gsd = gsd;
    this.ratio = ratio;
    this.pan = pan;
    this.bands = bands;
    this.answer = answer;
    this.gains = gains;
    this.airborne = airborne;
  }

  /** Metres of its finest pixels. */
  public double gsd() {
    return gsd;
  }

  /** Finest pixels along a side of a pixel of the bands. */
  public int ratio() {
    return ratio;
  }

  public Optional<Channel> pan() {
    return Optional.ofNullable(pan);
  }

  public List<Channel> bands() {
    return bands;
  }

  public Answer answer() {
    return answer;
  }

  /** Whether it tells what its numbers mean. */
  public boolean hasGains() {
    return gains;
  }

  /** Whether it flies in an aircraft, and what it takes is delivered as an ortho. */
  public boolean isAirborne() {
    return airborne;
  }

  public SampleType type() {
    return answer.full <= 255 ? SampleType.UINT8 : SampleType.UINT16;
  }

  /**
   * The instrument of a label.
   *
   * @throws sharpkestrel.raster.RasterException that names those there are
   */
  public static Instrument of(String label) {
    return Labelled.of(values(), label, "A sensor");
  }
}
