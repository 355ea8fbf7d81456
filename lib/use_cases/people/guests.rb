module UseCases
  # People from outside, known by their address.
  class Guests < Base
    # Whoever has this address here already, else a new guest. Inside a transaction.
    # @param id [String, nil] key for a new one
    # @param pointers [Hash] of the fields, where they are not name and email at the top
    # @return [Records::Person]
    # @raise [Core::Invalid]
    def by_address(name:, email:, time_zone:, id: nil, pointers: {})
      address = Core::MailAddress.read!(email, pointer: pointers.fetch(:email, "/email"))
      Records::Person.find_by(email: address) || make(name, address, time_zone, id, pointers.fetch(:name, "/name"))
    end

    # Somebody known by name alone, to whom nothing is ever sent. Inside a transaction.
    def by_name(name:, time_zone:) = make(name, Core::MailAddress.none(Records::Key.make(now)), time_zone, nil, "/name")

    private

    def make(name, address, time_zone, id, pointer)
      called = Core::Title.read(name, pointer: pointer, missing: "Give a name.")[0, 120]
      Records::Person.create!(
        id: id || Records::Key.make(now), name: called, email: address, time_zone: time_zone, guest: true
      )
    end
  end
end
