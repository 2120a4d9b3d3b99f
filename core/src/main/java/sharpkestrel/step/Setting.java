package sharpkestrel.step;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** A setting of a step. */
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.RECORD_COMPONENT)
public @interface Setting {
  String label();

  String does();

  String unit() default "";

  double min() default Double.NEGATIVE_INFINITY;

  double max() default Double.POSITIVE_INFINITY;

  /** Whether it goes with the place rather than with one step, so that a value once given is offered to every step. */
  boolean ofPlace() default false;

  /**
   * When it counts: {@code setting=value}, one of which must be so, values as of an enum's constant in lower case; empty:
   * always. Elsewhere panels leave it out.
   */
  String[] when() default {};

  /** The value used where none is given, as text; empty: it must be given. {@code auto}: the step finds it. */
  String initial() default "";

  /** Of a setting that names files to be read: which files count beside those it names. */
  Class<? extends Sources> reads() default Sources.Itself.class;
}
