module UseCases
  # Another address for somebody. The old one hears of it, since whoever reads there may have been robbed of their mail.
  class AddressChanges < Base
    # Inside a transaction.
    # @param person [Records::Person] locked
    # @param email [String] normal
    def change(person, email)
      old = person.email
      person.update!(email: email)
      tell(person, old)
    end

    # @param old [String] the address they had
    def tell(person, old)
      changer = Records::Person.find_by(id: by) unless by == person.id
      Outbox.new(clock: @clock).put(
        reason: "address:#{person.id}:#{now.to_i}:#{now.usec}", to: Reader.new(person.name, old),
        reply_to: changer&.email,
        **Mailing::AddressNote.parts(by: changer&.name)
      )
    end

    Reader = Struct.new(:name, :email)
  end
end
