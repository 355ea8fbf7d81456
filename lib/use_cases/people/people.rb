module UseCases
  # Who there is, and who they are when they sign in.
  class People < Base
    # The first person, who looks after people and places. Only one can be first.
    # @param code [String] what bin/start has printed, so that it is not whoever finds the address first
    # @raise [Core::Conflict] when somebody was
    def set_up(id:, name:, email:, time_zone:, password:, code:)
      raise set_up_already if Records::Person.exists?

      unless OpenSSL.secure_compare(Settings.set_up_code, code.strip.downcase)
        raise Core::Invalid.new(
          "This is not the code that bin/start has printed.", pointer: "/code", code: "set-up-code"
        )
      end
      raise Core::Invalid.new("Choose a password to sign in with.", pointer: "/password") if password.to_s.empty?

      make(id: id, name: name, email: email, time_zone: time_zone, password: password, admin: true, founder: 1)
    end

    # @param working_hours [Hash] ranges by day, see Core::FreeBusy::WorkingHours
    # @param days_off [Array<Hash>] on and word; those named replace the coming ones
    # @param time_zone [String, nil] in which the hours are; nil: as it was
    def keep_hours(id:, version:, working_hours:, region:, holidays_off:, days_off:, time_zone: nil)
      week = working_hours.transform_keys(&:to_s)
      if region && !Loading::Hours.regions.include?(region)
        raise Core::Invalid.new("No holidays are known of “#{region}”.", pointer: "/region")
      end

      write do
        person = find(Records::Person, id)
        zone = time_zone ? Core::Zone[time_zone, pointer: "/timeZone"] : person.zone
        Core::FreeBusy::WorkingHours.read(week, zone)
        update(
          person, version, time_zone: zone.name, working_hours: week, region: region, holidays_off: holidays_off,
          updated_at: now
        )
        wish = days_off.to_h { |day| [Date.iso8601(day[:on]), words(day[:word])] }
        person.days_off.where("off_on >= ?", person.zone.wall(now).date).where.not(off_on: wish.keys).delete_all
        wish.each { |on, word| Records::DayOff.find_or_initialize_by(person_id: id, off_on: on).update!(word: word) }
      end
    end

    # How somebody wants to be reminded.
    # @param phone [String, nil] international, spaces allowed (E.164)
    # @param remind_min [Integer, nil] before each meeting; 0: no mail; nil: as the series has it
    # @param mail_own [Boolean] whether mail about series they keep themselves goes to them too
    # @param mail_digest [Boolean] whether what is not urgent waits for the morning; mail_without [Array<String>] kinds
    #   of Core::MailWish they want none of
    def keep_reminders(
      id:, phone:, text_reminders:, remind_min:, mail_own: false, mail_digest: false, mail_without: []
    )
      wish = Core::MailWish.read(mail_digest, mail_without)
      number = words(phone)&.then { |text| Core::PhoneNumber.read!(text) }
      if text_reminders && number.nil?
        raise Core::Invalid.new("Give the number text messages go to.", pointer: "/phone")
      end

      write do
        find(Records::Person.lock, id).update!(
          phone: number, text_reminders: text_reminders, remind_min: remind_min, mail_own: mail_own,
          mail_digest: wish.digest, mail_without: wish.without
        )
      end
    end

    # @param invite [Boolean] whether they are mailed a link to sign in with
    def add(id:, name:, email:, time_zone:, password: nil, admin: false, invite: false)
      write do
        person = make(id: id, name: name, email: email, time_zone: time_zone, password: password, admin: admin)
        SignIns.new(by: by, clock: @clock).invite(person.id) if invite && person.password_digest.nil?
        person
      end
    end

    # @param version [Integer] the version seen
    def change(id:, version:, name:, email:, time_zone:, admin: nil, password: nil)
      write do
        person = find(Records::Person, id)
        wish = checked(name, email, time_zone)
        wish[:admin] = admin unless admin.nil? || id == by # nobody shuts themselves out
        wish[:password] = SignIns.check_password(password, about: [name, email]) if password
        old = person.email
        changed = update(person, version, **wish)
        AddressChanges.new(by: by, clock: @clock).tell(person, old) if changed && old != person.email
        SignIns.new(by: by, clock: @clock).end_all(id) if password
        person
      end
    rescue ActiveRecord::RecordNotUnique
      refuse_address(email)
    end

    private

    def make(id:, password:, admin:, name:, email:, time_zone:, founder: nil)
      wish = checked(name, email, time_zone)
      wish[:password] = SignIns.check_password(password, about: [name, email]) if password
      write do
        # A guest who comes to stay keeps their answers.
        guest = Records::Person.find_by(email: wish[:email], guest: true)
        next guest.update!(guest: false, **wish) && guest if guest

        once(Records::Person, id) { Records::Person.create!(id: id, admin: admin, founder: founder, **wish) }
        find(Records::Person, id)
      end
    rescue ActiveRecord::RecordNotUnique => error
      raise set_up_already if error.message.include?("founder")

      refuse_address(email)
    end

    def set_up_already = Core::Conflict.new("Left Over is set up already. Sign in instead.", code: "set-up")

    def checked(name, email, time_zone)
      {
        name: Core::Title.read(name, pointer: "/name", missing: "Give the person a name."),
        email: Core::MailAddress.read!(email), time_zone: Core::Zone[time_zone, pointer: "/timeZone"].name
      }
    end

    def refuse_address(email)
      raise Core::Invalid.new("Somebody with the address #{email} is here already.", pointer: "/email", code: "taken")
    end
  end
end
