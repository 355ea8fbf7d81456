module UseCases
  # Who there is, and who they are when they sign in.
  class People < Base
    PAGE_SIZE = 100
    SHORTEST_PASSWORD = 10
    ADDRESS = /\A[^@\s<>",;]+@[^@\s<>",;]+\.[^@\s<>",;]+\z/

    # @return [Hash, nil] the person, nil when address and password do not belong together
    def sign_in(email:, password:)
      person = Records::Person.find_by(email: email.to_s.strip.downcase)
      # An unknown address takes as long as a wrong password, so that neither can be told from the other.
      return BCrypt::Password.create(password, cost: BCrypt::Engine.cost) && nil unless person&.password_digest

      view(person) if person.authenticate(password)
    end

    def me = Records::Person.find_by(id: by)&.then { |person| view(person) }

    # Whether nobody is here yet, so that the first person must be made.
    def empty? = !Records::Person.exists?

    # The first person, who looks after people and places. Only one can be first.
    # @raise [Core::Conflict] when somebody was
    def set_up(id:, name:, email:, time_zone:, password:)
      raise Core::Conflict.new("Left Over is set up already. Sign in instead.", code: "set-up") unless empty?

      make(id: id, name: name, email: email, time_zone: time_zone, password: password, admin: true, founder: 1)
    end

    def list(page: 1)
      people = Records::Person.order(:name, :id)
      {people: people.offset((page - 1) * PAGE_SIZE).limit(PAGE_SIZE).map { |person| view(person) }, page: page,
       page_size: PAGE_SIZE, total: people.count}
    end

    def add(id:, name:, email:, time_zone:, password: nil, admin: false)
      make(id: id, name: name, email: email, time_zone: time_zone, password: password, admin: admin)
    end

    # @param version [Integer] the version seen
    def change(id:, version:, name:, email:, time_zone:, admin: nil, password: nil)
      write do
        person = find(Records::Person, id)
        wish = checked(name, email, time_zone)
        wish[:admin] = admin unless admin.nil? || id == by # nobody shuts themselves out
        wish[:password] = checked_password(password) if password
        update(person, version, **wish)
        view(person)
      end
    rescue ActiveRecord::RecordNotUnique
      refuse_address(email)
    end

    private

    def make(id:, password:, admin:, name:, email:, time_zone:, founder: nil)
      wish = checked(name, email, time_zone)
      wish[:password] = checked_password(password) if password
      write do
        person = Records::Person.find_by(id: id) || Records::Person.create!(id: id, admin: admin, founder: founder, **wish)
        view(person)
      end
    rescue ActiveRecord::RecordNotUnique => error
      raise Core::Conflict.new("Left Over is set up already. Sign in instead.", code: "set-up") if error.message.include?("founder")

      refuse_address(email)
    end

    def checked(name, email, time_zone)
      email = email.to_s.strip.downcase
      raise Core::Invalid.new("“#{email}” is not a mail address such as ines@skerrybuoy.example.", pointer: "/email") unless email.match?(ADDRESS)

      {name: words(name, pointer: "/name", missing: "Give the person a name.").gsub(/[[:cntrl:]]/, " "), email: email,
       time_zone: Core::Zone[time_zone, pointer: "/timeZone"].name}
    end

    def checked_password(password)
      return password if password.length >= SHORTEST_PASSWORD && password.bytesize <= 72

      raise Core::Invalid.new("A password has from #{SHORTEST_PASSWORD} to 72 characters.", pointer: "/password")
    end

    def refuse_address(email)
      raise Core::Invalid.new("Somebody with the address #{email} is here already.", pointer: "/email", code: "taken")
    end

    def view(person)
      {id: person.id, name: person.name, email: person.email, time_zone: person.time_zone, admin: person.admin,
       can_sign_in: !person.password_digest.nil?, version: person.lock_version}
    end
  end
end
