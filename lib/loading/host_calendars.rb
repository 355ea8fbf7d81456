module Loading
  # What is not sure about the calendars of hosts. What they are called is for nobody but whose they are.
  module HostCalendars
    module_function

    # @param hosts [Array<Records::OpenHoursHost>] with their people
    # @return [Array<String>] sentences, one for each host of whom a calendar that counts could not be read lately
    def failing(hosts)
      out = hosts.flat_map { |host| host.calendars_out || [] }
      ids = Records::Calendar.where(person_id: hosts.map(&:person_id)).where.not(last_error: nil).where.not(id: out)
        .distinct.pluck(:person_id)
      hosts.select { |host| ids.include?(host.person_id) }.map do |host|
        "A calendar of #{host.person.name} could not be read lately; what it said before counts."
      end
    end
  end
end
