module UseCases
  # Many people at once, from vCards or a table: every problem is shown before anything is written.
  class PeopleImport < Base
    MOST = 2_000
    MOST_BYTES = 2_000_000
    # What the columns of a table may be called.
    COLUMNS = {
      name: ["name", "full name"], email: ["mail address", "mail", "email", "e-mail", "address"],
      time_zone: ["time zone", "timezone", "zone", "tz"]
    }.freeze

    # @param content [String] the file
    # @param kind [String] csv or vcard
    # @param time_zone [String] for those who have none
    # @return [Hash] people, each with what is wrong
    def preview(content:, kind:, time_zone:)
      raise Core::Invalid.new("This file is larger than 2 MB.", pointer: "/content") if content.bytesize > MOST_BYTES

      found = (kind == "vcard") ? Core::ICalendar::VCard.read(content).map(&:to_h) : table(content)
      raise Core::Invalid.new("The file has nobody in it.", pointer: "/content") if found.empty?
      raise Core::Invalid.new("#{MOST} people at a time are the most.", pointer: "/content") if found.size > MOST

      here = Records::Person.where(email: found.filter_map { |one| Core::MailAddress.read(one[:email]) }).pluck(:email)
      seen = []
      people = found.each_with_index.map { |one, i| looked_at(one, one[:line] || i + 1, time_zone, here, seen) }
      {
        people: people, fine: people.count { |one| one[:problems].empty? },
        faulty: people.count { |one| one[:problems].any? }
      }
    rescue Core::Invalid => error
      raise Core::Invalid.new(error.message, pointer: "/content", code: error.code)
    end

    # All or nobody. @param people [Array<Hash>] id, name, email, time_zone
    # @param invite [Boolean] whether they are mailed a link to sign in with
    def keep(people:, invite: false)
      use = People.new(by: by, clock: @clock)
      write do
        people.each_with_index do |one, i|
          use.add(**one, invite: invite)
        rescue Core::Invalid => error
          raise Core::Invalid.new(
            error.message,
            faults: error.faults.map { |fault| fault.merge(pointer: "/people/#{i}#{fault[:pointer]}") },
            code: error.code
          )
        end
      end
      {kept: people.size}
    end

    private

    def table(content) = Core::Table.read(content, columns: COLUMNS, needed: %i[name email])

    def looked_at(one, line, time_zone, here, seen)
      email = Core::MailAddress.normal(one[:email])
      zone = one[:time_zone].to_s.empty? ? time_zone : one[:time_zone]
      problems = []
      problems << "No name." if one[:name].to_s.empty?
      unless Core::MailAddress.read(email)
        problems << (email.empty? ? "No mail address." : "“#{email}” is not a mail address.")
      end
      problems << "#{email} is here already." if here.include?(email)
      problems << "#{email} stands here twice." if seen.include?(email)
      problems << "There is no time zone “#{zone}”." unless Core::Zone.known?(zone)
      seen << email
      {
        line: line, name: one[:name].to_s[0, 120], email: email[0, Core::MailAddress::MOST],
        time_zone: zone.to_s[0, 60], problems: problems
      }
    end
  end
end
