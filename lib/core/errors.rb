module Core
  # Everything the rules can refuse. The message is a whole sentence a user can read;
  # `details` are facts for the reply; `code` is stable and named in the contract.
  class Error < StandardError
    attr_reader :code, :details

    def initialize(message, code: self.class::CODE, **details)
      super(message)
      @code = code
      @details = details
    end
  end

  # The wish is understood and wrong. `pointer` is the JSON pointer (RFC 6901) of the field at fault.
  class Invalid < Error
    CODE = "invalid"

    # @param faults [Array<Hash>] further faults of the same wish, each with :pointer and :detail
    def initialize(message, pointer: "", faults: nil, **rest)
      super(message, errors: faults || [{pointer: pointer, detail: message}], **rest)
    end

    def pointer = details[:errors].first[:pointer]

    def faults = details[:errors]
  end

  # There is no such thing, or it is not for this person to know of.
  class NotFound < Error
    CODE = "not-found"
    def initialize(message = "There is nothing here.", **rest) = super
  end

  # Nobody is signed in.
  class Unknown < Error
    CODE = "not-signed-in"
    def initialize(message = "Sign in to go on.", **rest) = super
  end

  # It stands differently by now: somebody else was first, or the state does not allow it.
  class Conflict < Error
    CODE = "conflict"
  end

  # Tried too often. @param retry_after_s [Integer] when it may be tried again
  class TooMany < Error
    CODE = "too-many-tries"

    def initialize(retry_after_s:)
      wait = (retry_after_s < 90) ? "a minute" : "#{(retry_after_s / 60.0).ceil} minutes"
      super("Too many tries. Wait #{wait}, then try again.", retry_after_s: retry_after_s)
    end
  end

  # Changed since it was read (If-Match, RFC 9110 13.1.1).
  class Stale < Error
    CODE = "changed-since"

    def initialize(
      message = "Somebody changed this in the meantime. What you wrote is kept here; look at theirs and save again.",
      **rest
    )
      super
    end
  end
end
