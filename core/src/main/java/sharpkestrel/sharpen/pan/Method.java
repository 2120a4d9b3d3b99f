package sharpkestrel.sharpen.pan;

/** Ways of giving bands the detail of a panchromatic one. */
public enum Method {
  /** Component substitution with an intensity fitted to the sensor (Aiazzi, Baronti and Selva 2007). */
  ADAPTIVE(true, "Adaptive Gram-Schmidt"),
  /** Every band times panchromatic over intensity (Gillespie, Kahle and Walker 1987). */
  BROVEY(true, "Brovey, weighted"),
  /** The first principal component gives way to the panchromatic band (Chavez and Kwarteng 1989). */
  PRINCIPAL_COMPONENT(true, "Principal component"),
  /** The mean of the bands gives way to the panchromatic band, by orthogonalisation (Laben and Brower 2000). */
  GRAM_SCHMIDT(true, "Gram-Schmidt"),
  /** What a box filter leaves of the panchromatic band (Chavez, Sides and Anderson 1991). */
  HIGH_PASS(false, "High-pass"),
  /** Every band times panchromatic over its own mean about the pixel (Liu 2000). */
  SMOOTHING(false, "Smoothing-filter modulation"),
  /** Generalised Laplacian pyramid, matched to the sensor, gains from the context (Aiazzi et al. 2002, 2006). */
  LAPLACIAN(false, "Laplacian pyramid in context");

  private final boolean substitutes;
  private final String title;

  Method(boolean substitutes, String title) {
    this.substitutes = substitutes;
    this.title = title;
  }

  /** Whether an intensity made of the bands gives way; else detail comes from the panchromatic band alone. */
  public boolean substitutes() {
    return substitutes;
  }

  public String title() {
    return title;
  }
}
