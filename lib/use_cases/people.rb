module UseCases
  # Who there is, and who they are when they sign in.
  class People < Base
    PAGE_SIZE = 100

    def me = Records::Person.find_by(id: by)&.then { |person| view(person) }

    # Whether nobody is here yet, so that the first person must be made.
    def empty? = !Records::Person.exists?

    # The first person, who looks after people and places. Only one can be first.
    # @param code [String] what bin/start has printed, so that it is not whoever finds the address first
    # @raise [Core::Conflict] when somebody was
    def set_up(id:, name:, email:, time_zone:, password:, code:)
      raise Core::Conflict.new("Left Over is set up already. Sign in instead.", code: "set-up") unless empty?
      unless OpenSSL.secure_compare(Settings.set_up_code, code.strip.downcase)
        raise Core::Invalid.new(
          "This is not the code that bin/start has printed.", pointer: "/code", code: "set-up-code"
        )
      end
      raise Core::Invalid.new("Choose a password to sign in with.", pointer: "/password") if password.to_s.empty?

      make(id: id, name: name, email: email, time_zone: time_zone, password: password, admin: true, founder: 1)
    end

    def list(page: 1)
      people = Records::Person.where(guest: false).order(:name, :id)
      {people: people.offset((page - 1) * PAGE_SIZE).limit(PAGE_SIZE).map { |person| view(person) }, page: page,
       page_size: PAGE_SIZE, total: people.count}
    end

    # Everybody as vCards (RFC 6350).
    def vcards = Core::ICalendar::VCard.write(
      Records::Person
        .where(guest: false)
        .order(:name, :id)
        .map { |person| {id: person.id, name: person.name, email: person.email, time_zone: person.time_zone} }
    )

    # One person: when they work, which days they are off, in which groups they are.
    def show(id)
      person = find(Records::Person.includes(:days_off), id)
      zone = person.zone
      days = zone.wall(now).date..zone.wall(now).date + 365
      view(person).merge(
        zone_place: zone.place,
        working_hours: person.working_hours || Hours::USUAL,
        usual_hours: person.working_hours.nil?,
        region: person.region,
        holidays_off: person.holidays_off,
        days_off: days_off(person, days.first),
        holidays: Hours.holidays(person.region, days).map { |on, name| {on: on, name: name} },
        groups:
          Records::Group
            .where(id: Records::GroupMember.where(person_id: id).select(:group_id))
            .order(:name)
            .map { |group| {id: group.id, name: group.name} },
        known: Records::Calendar.telling.where(person_id: id).exists?,
        may_keep: Access.new(by).allow?(:keep_hours, :person, id),
        reminders: reminders(person)
      )
    end

    # What takes their time over some days: to others only that it does, to themselves also with what.
    def busy(id, from_day: nil)
      person = find(Records::Person, id)
      zone = person.zone
      from = zone.instant(Core::WallTime.at(from_day ? Date.iso8601(from_day) : zone.wall(now).date))
      told = Availability.told(id, from, from + 14 * 86_400)
      told = told.map { |span| span.merge(title: nil) } unless Access.new(by).allow?(:see_busy_with_what, :person, id)
      {
        spans:
          told.map do |span|
            span.merge(local_start: zone.wall(span[:starts_at]), local_end: zone.wall(span[:ends_at]))
          end
      }
    end

    # @param working_hours [Hash] ranges by day, see Core::FreeBusy::WorkingHours
    # @param days_off [Array<Hash>] on and word; those named replace the coming ones
    # @param time_zone [String, nil] in which the hours are; nil: as it was
    def keep_hours(id:, version:, working_hours:, region:, holidays_off:, days_off:, time_zone: nil)
      week = working_hours.transform_keys(&:to_s)
      if region && !Hours.regions.include?(region)
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
      show(id)
    end

    PHONE = /\A\+[1-9]\d{6,14}\z/

    # How somebody wants to be reminded.
    # @param phone [String, nil] international, spaces allowed (E.164)
    # @param remind_min [Integer, nil] before each meeting; 0: no mail; nil: as the series has it
    # @param mail_own [Boolean] whether mail about series they keep themselves goes to them too
    def keep_reminders(id:, phone:, text_reminders:, remind_min:, mail_own: false)
      number = words(phone)&.gsub(%r{[\s()./-]}, "")&.sub(/\A00/, "+")
      if number && !number.match?(PHONE)
        raise Core::Invalid.new("Give the number with its country, such as +47 55 00 00 00.", pointer: "/phone")
      end
      if text_reminders && number.nil?
        raise Core::Invalid.new("Give the number text messages go to.", pointer: "/phone")
      end

      write do
        find(Records::Person.lock, id).update!(
          phone: number, text_reminders: text_reminders, remind_min: remind_min, mail_own: mail_own
        )
      end
      show(id)
    end

    # @param invite [Boolean] whether they are mailed a link to sign in with
    def add(id:, name:, email:, time_zone:, password: nil, admin: false, invite: false)
      write do
        make(id: id, name: name, email: email, time_zone: time_zone, password: password, admin: admin)
          .tap { |person| SignIns.new(by: by, clock: @clock).invite(person[:id]) if invite && !person[:can_sign_in] }
      end
    end

    # @param version [Integer] the version seen
    def change(id:, version:, name:, email:, time_zone:, admin: nil, password: nil)
      write do
        person = find(Records::Person, id)
        wish = checked(name, email, time_zone)
        wish[:admin] = admin unless admin.nil? || id == by # nobody shuts themselves out
        wish[:password] = SignIns.check_password(password, about: [name, email]) if password
        update(person, version, **wish)
        SignIns.new(by: by, clock: @clock).end_all(id) if password
        view(person)
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
        next guest.tap { |known| known.update!(guest: false, **wish) }.then { |known| view(known) } if guest

        once(Records::Person, id) { Records::Person.create!(id: id, admin: admin, founder: founder, **wish) }
        view(find(Records::Person, id))
      end
    rescue ActiveRecord::RecordNotUnique => error
      if error.message.include?("founder")
        raise Core::Conflict.new("Left Over is set up already. Sign in instead.", code: "set-up")
      end

      refuse_address(email)
    end

    def checked(name, email, time_zone)
      {
        name: words(name, pointer: "/name", missing: "Give the person a name.").gsub(/[[:cntrl:]]/, " "),
        email: Core::MailAddress.read!(email), time_zone: Core::Zone[time_zone, pointer: "/timeZone"].name
      }
    end

    def refuse_address(email)
      raise Core::Invalid.new("Somebody with the address #{email} is here already.", pointer: "/email", code: "taken")
    end

    # Others see that somebody is off, not why.
    def days_off(person, from)
      why = Access.new(by).allow?(:keep_hours, :person, person.id)
      person
        .days_off
        .select { |day| day.off_on >= from }
        .sort_by(&:off_on)
        .map { |day| {on: day.off_on, word: (day.word if why)} }
    end

    # Phone numbers are for those alone who may change them.
    def reminders(person)
      return unless Access.new(by).allow?(:keep_hours, :person, person.id)

      {
        phone: person.phone, text_reminders: person.text_reminders, remind_min: person.remind_min,
        mail_own: person.mail_own, texts: !Settings.texts.nil?
      }
    end

    def view(person)
      {id: person.id, name: person.name, email: person.email, time_zone: person.time_zone, admin: person.admin,
       can_sign_in: !person.password_digest.nil?, version: person.lock_version}
    end
  end
end
