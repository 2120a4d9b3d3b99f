package sharpkestrel.expr;

/** A formula that cannot be read or used; the message says where and what would do. */
public final class ExpressionException extends RuntimeException {

  private static final long serialVersionUID = 1L;

  public ExpressionException(String message) {
    super(message);
  }
}
