module Core
  module Invitation
    # The online side of a meeting: link, passcode and the number to dial, each or none given. `ours` how often the link
    # of a call made here has been renewed, nil for a link somebody has typed: ours has another link for each person,
    # filled in (`for`) when they are told; `dials` whether it can be dialled into as well, true or nil.
    class Call < Value.of(:url, :passcode, :dial_in, :ours, :dials)
      # What a link can hold in mails, entries and pages (after RFC 3986 2; letters of all scripts, as browsers show
      # them): nothing that ends a line, hides, or turns what is around it.
      ADDRESS = %r{\A(?:https?://|(?:sips?|xmpp|tel):)[^[:space:][:cntrl:]\p{Cf}<>"\\^`{|}]++\z}i
      # Between number and PIN, as we write them.
      PIN = ", PIN "

      # @param plain [Hash{String => String}, nil] as `to_plain` gives it
      # @return [Call, nil] nil when there is no online side
      def self.of(plain) = plain && new(**self::NAMES.to_h { |name| [name, plain[name.to_s]] })

      # @param renewal [Integer]
      # @param dials [Boolean] whether there is a number to dial besides
      def self.ours(renewal, dials: false)
        new(url: nil, passcode: nil, dial_in: nil, ours: renewal, dials: dials || nil)
      end

      # One that somebody has typed.
      def self.typed(url:, passcode:, dial_in:)
        new(url: url, passcode: passcode, dial_in: dial_in, ours: nil, dials: nil)
      end

      # @raise [Invalid] naming the field: `pointers` by name
      def self.read(url:, passcode:, dial_in:, pointers:)
        if url && !url.match?(ADDRESS)
          raise Invalid.new(
            "Give the whole address of the call, such as https://calls.example/round.", pointer: pointers.fetch(:url)
          )
        end
        if dial_in && !dial_in.match?(/\d/)
          raise Invalid.new("A number to dial has digits.", pointer: pointers.fetch(:dial_in))
        end
        if passcode && url.nil? && dial_in.nil?
          raise Invalid.new("A passcode needs a link or a number that it opens.", pointer: pointers.fetch(:passcode))
        end

        typed(url: url, passcode: passcode, dial_in: dial_in) if url || dial_in
      end

      # As it is kept and compared: of a call made here only that it is one, and which.
      def to_plain
        plain = to_h.transform_keys(&:to_s)
        ours ? plain.compact : plain.except("ours", "dials")
      end

      # What tells it from another: all that is told of it, and of one made here which link it is.
      def sign = ours ? "made here #{ours}#{" dials" if dials}" : to_s

      # One made here, as one person has it.
      def for(url:, dial_in: nil) = ours ? with(url: url, dial_in: dial_in) : self

      # As people read it: "https://…, passcode 4711, or dial +47 55 00 00 00".
      def to_s
        return words unless ours && url.nil?

        "a #{"new " if ours.positive?}link of your own#{", and a number to dial" if dials}"
      end

      def words =
        [url, passcode && "passcode #{passcode}", dial_in && "#{"or " if url}dial #{dial_in}"].compact.join(", ")

      # CONFERENCE properties (RFC 7986 5.11): programs differ in where they look, so the link also stands in text.
      def write(writer)
        number, pin = dial_in&.split(PIN)
        label = ["Call", passcode && "passcode #{passcode}", pin && "PIN #{pin}"].compact.join(", ")
        writer.raw("CONFERENCE", url, value: "URI", feature: %w[AUDIO VIDEO], label: label) if url
        if dial_in
          writer.raw("CONFERENCE", "tel:#{number.gsub(/[^+\d]/, "")}", value: "URI", feature: "PHONE", label: label)
        end
      end
    end
  end
end
