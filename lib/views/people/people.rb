module Views
  # People: who is here, and one of them with hours, days off and groups.
  class People < Base
    PAGE_SIZE = 100

    def me = whoever && row_of(whoever)

    # Whose public holidays whoever looks has. @return [String, nil]
    def region = whoever&.region

    # Whether whoever looks writes 12/7 for 7 December.
    def month_first? = Core::CivilDay.month_first?(region)

    # Whether nobody is here yet, so that the first person must be made.
    def empty? = !Records::Person.exists?

    def list(page: 1)
      people = Records::Person.where(guest: false).order(:name, :id)
      one_page(:people, people, page, PAGE_SIZE) { |shown| shown.map { |person| row_of(person) } }
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
      row_of(person).merge(
        zone_city: zone.city,
        working_hours: person.working_hours || Loading::Hours::USUAL,
        usual_hours: person.working_hours.nil?,
        region: person.region,
        holidays_off: person.holidays_off,
        days_off: days_off(person, days.first),
        holidays: Loading::Hours.holidays(person.region, days).map { |on, name| {on: on, name: name} },
        groups:
          Records::Group
            .where(id: Records::GroupMember.where(person_id: id).select(:group_id))
            .order(:name)
            .map { |group| {id: group.id, name: group.name} },
        known: Records::Calendar.telling.where(person_id: id).exists?,
        may_keep: Loading::Access.new(by).allow?(:keep_hours, :person, id),
        reminders: reminders(person)
      )
    end

    # What takes their time over some days: to others only that it does, to themselves also with what.
    def busy(id, from_day: nil)
      person = find(Records::Person, id)
      zone = person.zone
      from = zone.instant(Core::WallTime.at(from_day ? Date.iso8601(from_day) : zone.wall(now).date))
      told = Loading::Availability.told(id, from, from + 14 * 86_400) + here(id, from, from + 14 * 86_400)
      told = told.sort_by { |span| [span[:starts_at], span[:ends_at]] }
      with_what = Loading::Access.new(by).allow?(:see_busy_with_what, :person, id)
      told = told.map { |span| span.merge(title: nil) } unless with_what
      {
        spans:
          told.map do |span|
            span.merge(local_start: zone.wall(span[:starts_at]), local_end: zone.wall(span[:ends_at]))
          end
      }
    end

    # @param person [Records::Person] as lists show them
    def row_of(person)
      {id: person.id, name: person.name, email: person.email, time_zone: person.time_zone, admin: person.admin,
       can_sign_in: !person.password_digest.nil?, version: person.lock_version}
    end

    private

    # Meetings kept here take their time as well.
    def here(id, from, to) =
      Loading::Availability.meetings_of(id, from, to).map do |starts_at, ends_at, tentative, title|
        {starts_at: starts_at, ends_at: ends_at, kind: tentative ? :tentative : :busy, title: title}
      end

    def whoever = @whoever ||= Records::Person.find_by(id: by)

    # Others see that somebody is off, not why.
    def days_off(person, from)
      why = Loading::Access.new(by).allow?(:keep_hours, :person, person.id)
      person
        .days_off
        .select { |day| day.off_on >= from }
        .sort_by(&:off_on)
        .map { |day| {on: day.off_on, word: (day.word if why)} }
    end

    # Phone numbers are for those alone who may change them.
    def reminders(person)
      return unless Loading::Access.new(by).allow?(:keep_hours, :person, person.id)

      {
        phone: person.phone, text_reminders: person.text_reminders, remind_min: person.remind_min,
        mail_own: person.mail_own, mail_digest: person.mail_digest, mail_without: person.mail_without || [],
        texts: !Settings.texts.nil?
      }
    end
  end
end
