module Mailing
  # The way into a call, in a mail: words that lead there, and what opens it. In text the address has a line of its own.
  class Join
    LABEL = "Join the call"

    # @param call [Core::Invitation::Call, nil]
    # @param recorded [Boolean] whether the call is recorded
    def initialize(call, recorded: false) = (@call, @recorded = call, recorded)

    # @return [String, nil]
    def text
      return unless @call
      return [LABEL, *more.map { |line| "  #{line}" }].join("\n") unless url

      ["#{LABEL}:", "  #{url}", *more.map { |line| "  #{line}" }].join("\n")
    end

    # @return [String, nil]
    def html
      return unless @call

      [(Html.link(LABEL, url) if url), (Html.soft(more.join("\n")) if more.any?)].compact.join
    end

    private

    def url = @call.url

    def more
      return [@call.to_s] if url.nil? && @call.ours

      [@call.passcode && "Passcode #{@call.passcode}", dial, (Invitation::RECORDED if @recorded)].compact
    end

    def dial = @call.dial_in && "#{url ? "Or dial" : "Dial"} #{@call.dial_in}"
  end
end
