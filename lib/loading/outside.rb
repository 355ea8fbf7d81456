module Loading
  # A meeting organised elsewhere, as the messages about it have made it.
  module Outside
    module_function

    # @param row [Records::OutsideMeeting]
    # @return [Core::Invitation::Outside]
    def of(row)
      letters = row.messages.map do |one|
        Core::Invitation::Outside::Letter.new(
          sender: one["from"], ical: one["ical"], mine: one["mine"] == true,
          came_at: one["at"] && Time.iso8601(one["at"])
        )
      end
      Core::Invitation::Outside.new(letters, address: row.person.email, zone: row.person.zone)
    end
  end
end
