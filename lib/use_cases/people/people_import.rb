module UseCases
  # Many people at once, from vCards or a table: every problem is shown before anything is written.
  class PeopleImport < Base
    MOST = 2_000
    MOST_BYTES = 2_000_000
    # What the columns of a table may be called.
    COLUMNS = {
      name: ["name", "full name"], email: ["mail address", "mail", "email", "e-mail", "address"],
      time_zone: ["time zone", "timezone", "zone", "tz"],
      phone: ["telephone", "phone", "mobile", "telephone number", "phone number", "tel"],
      groups: ["groups", "group", "team", "teams"]
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

    # All or nobody. Groups that are not here yet are made.
    # @param people [Array<Hash>] id, name, email, time_zone, and phone and groups (names) where they have some
    # @param invite [Boolean] whether they are mailed a link to sign in with
    def keep(people:, invite: false)
      use = People.new(by: by, clock: @clock)
      write do
        people.each_with_index do |one, i|
          use.add(**one.slice(:id, :name, :email, :time_zone), invite: invite)
          with_phone(one)
        rescue Core::Invalid => error
          raise Core::Invalid.new(
            error.message,
            faults: error.faults.map { |fault| fault.merge(pointer: "/people/#{i}#{fault[:pointer]}") },
            code: error.code
          )
        end
        into_groups(people)
      end
      {kept: people.size}
    end

    private

    def with_phone(one)
      number = one[:phone].to_s.strip
      Records::Person.where(id: one[:id]).update_all(phone: Core::PhoneNumber.read!(number)) unless number.empty?
    end

    def into_groups(people)
      named = people.flat_map { |one| (one[:groups] || []).map { |name| [name.strip, one[:id]] } }
      named.group_by(&:first).each do |name, some|
        next if name.empty?

        ids = some.map(&:last)
        group = Records::Group.find_by(name: name)
        next add_to(group, ids) if group

        Groups.new(by: by, clock: @clock).add(id: Records::Key.make(now), name: name, person_ids: ids)
      end
    end

    def add_to(group, ids)
      inside = Records::GroupMember.where(group_id: group.id)
      Groups.new(by: by, clock: @clock).change(
        id: group.id, version: group.lock_version, name: group.name,
        person_ids: (inside.where.not(person_id: nil).pluck(:person_id) + ids).uniq,
        group_ids: inside.where.not(member_group_id: nil).pluck(:member_group_id)
      )
    end

    def number?(text)
      Core::PhoneNumber.read!(text)
      true
    rescue Core::Invalid
      false
    end

    def groups_of(one)
      names = one[:groups].is_a?(Array) ? one[:groups] : Core::Table.names(one[:groups])
      names.map { |name| name[0, 120] }.uniq.first(10)
    end

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
      phone = one[:phone].to_s.strip
      known = phone.empty? || number?(phone)
      remark = "“#{Core::Words.shorten(phone, 40)}” is no number such as +47 900 00 112, and is left out." unless known
      seen << email
      {
        line: line, name: one[:name].to_s[0, 120], email: email[0, Core::MailAddress::MOST],
        time_zone: zone.to_s[0, 60], phone: (phone.presence if known), groups: groups_of(one), remark: remark,
        problems: problems
      }
    end
  end
end
