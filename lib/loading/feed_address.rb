module Loading
  # A person's private addresses for calendar programs. Whoever has one may read what is there.
  module FeedAddress
    KINDS = %w[busy meetings].freeze

    module_function

    # @param kind [String] of KINDS
    def of(person, kind) = "#{Settings.origin}/feeds/#{kind}/#{person.id}/#{token(person)}.ics"

    # @param given [String, nil] the token of an address
    def right?(person, kind, given) = KINDS.include?(kind) && OpenSSL.secure_compare(token(person), given.to_s)

    def token(person) = Settings.seal("feed", "#{person.id}:#{person.feed_serial}")
  end
end
