package sharpkestrel.demo.ground;

/** The archipelago: a coast, and relief behind it. */
final class Isles implements Landform {

  private final Coast coast;
  private final Relief relief;

  Isles(long seed) {
    coast = new Coast(seed);
    relief = new Relief(seed, coast);
  }

  Coast coast() {
    return coast;
  }

  @Override
  public double smooth(double e, double n) {
    return coast.smooth(e, n);
  }

  @Override
  public double jagged(double smooth, double e, double n) {
    return coast.jagged(smooth, e, n);
  }

  @Override
  public Broad broad(double e, double n) {
    return relief.broad(e, n);
  }

  @Override
  public double height(double shore, Broad broad, double e, double n) {
    return relief.at(shore, broad, e, n);
  }

  @Override
  public double front(double e, double n) {
    return coast.front(e, n);
  }

  @Override
  public double town(double e, double n) {
    return coast.town(e, n);
  }

  @Override
  public double built(double e, double n) {
    return coast.built(e, n);
  }
}
