module Core
  # Whether a mail comes from whom it says, after what the receiving mail service has found out (RFC 8601). Only what is
  # aligned with the domain of the From line counts: anybody can have a mail pass SPF or DKIM for a domain of their own
  # (RFC 7489 3.1, relaxed: of one organisational domain).
  module SenderCheck
    # What a service says, method by method: `domain` is the one it has found right.
    Found = Value.of(:method, :result, :domain)
    # Where each method says which domain that is.
    NAMED = {"dmarc" => %w[header.from], "spf" => %w[smtp.mailfrom smtp.helo], "dkim" => %w[header.d header.i]}.freeze
    PART = /\A\s*+([a-z]+)(?:\/\d++)?\s*+=\s*+([a-z]++)/i
    NAME = /([a-z]+\.[a-z-]++)\s*+=\s*+"?([^\s;"]++)/i
    MOST_PARTS = 40

    module_function

    # @param value [String] of an Authentication-Results field
    # @return [Array<Found>]
    def read(value)
      value[0, 4_000].split(";").first(MOST_PARTS).drop(1).filter_map do |part|
        method, result = PART.match(part)&.captures&.map(&:downcase)
        next unless NAMED.key?(method)

        said = part.scan(NAME).to_h { |name, said| [name.downcase, said] }
        Found.new(method: method, result: result, domain: domain(said.values_at(*NAMED[method]).compact.first))
      end
    end

    # @param from [Array<String>] addresses of the From line
    # @param organisational [#call] a domain → the one it belongs to
    # @return [Boolean]
    def vouched?(found, from, organisational)
      return false unless from.size == 1

      ours = organisational.call(domain(from.first))
      dmarc = found.find { |one| one.method == "dmarc" && %w[pass fail].include?(one.result) }
      # What DMARC says is what the others come to, aligned.
      return dmarc.result == "pass" && aligned?(dmarc, ours, organisational) if dmarc

      found.any? { |one| one.result == "pass" && aligned?(one, ours, organisational) }
    end

    def aligned?(one, ours, organisational) = !ours.nil? && !one.domain.nil? && organisational.call(one.domain) == ours

    # "ines@mail.example", "@mail.example" or "mail.example"
    def domain(text) = text&.split("@")&.last&.downcase&.delete_suffix(".")
    private_class_method :aligned?, :domain
  end
end
