module Core
  # A mail address as it is kept and compared here: what any mail service takes and any mail library can write, in one
  # spelling. Two addresses are the same when they read the same; ones that only look alike are not.
  module MailAddress
    # RFC 5321 4.5.3.1: octets of the local part, and of the whole without its brackets.
    MOST_LOCAL, MOST = 64, 254
    # RFC 5321 4.1.2: a dot-string before the @. Quoted strings and address literals are left out: hardly anybody has
    # them, and many programs write them wrongly.
    ATOM = "[A-Za-z0-9!#$%&'*+/=?^_`{|}~-]+".freeze
    LABEL = "[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?".freeze
    FORMAT = /\A#{ATOM}(?:\.#{ATOM})*@(?:#{LABEL}\.)+(?=[a-z0-9-]*[a-z])#{LABEL}\z/

    class << self
      # Of the house, for examples; set as the application starts.
      attr_writer :domain

      def domain = @domain || "house.example"
    end

    module_function

    # @return [String, nil] as it is kept; nil when it is none
    def read(text)
      address = normal(text)
      address if address.length <= MOST && address.index("@").to_i <= MOST_LOCAL && address.match?(FORMAT)
    end

    # @raise [Invalid] with the pointer of the field
    def read!(text, pointer: "/email")
      read(text) ||
        raise(
          Invalid.new(
            "“#{Words.shorten(text.to_s.scrub.strip, 80)}” is not a mail address such as ines@#{MailAddress.domain}.",
            pointer: pointer
          )
        )
    end

    # For somebody known by name alone: an address nothing is ever sent to (RFC 2606: .invalid).
    def none(key) = "#{key}@nowhere.invalid"

    def none?(address) = address.to_s.end_with?(".invalid")

    # The spelling that is compared. The standard leaves the local part to its house; that capitals do not matter there
    # is common practice. Only A to Z are changed: other letters that look alike stay what they are.
    def normal(text) = text.to_s.dup.force_encoding(Encoding::UTF_8).scrub.strip.downcase(:ascii)
  end
end
