package sharpkestrel.step;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** An input of a step: the result of another, or a file. */
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.RECORD_COMPONENT)
public @interface In {
  String does();

  /** Whether the step works without it; it is then an empty Optional. */
  boolean optional() default false;

  /** What it is called where it is optional and nothing is given. */
  String without() default "none";

  /** Whether it goes with the place rather than with one step, so that a file once given is offered to every step. */
  boolean ofPlace() default false;

  /** Whether it changes what the step makes so much that a file is offered but never chosen by itself. */
  boolean byHand() default false;

  /** When it counts, as of {@link Setting#when}; elsewhere panels leave it out. */
  String[] when() default {};

  /** What is offered for it in the window. */
  Suits[] suits() default {};
}
