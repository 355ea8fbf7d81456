module UseCases
  # Being a host of open hours: nobody is one before they have agreed, each says which of their own calendars count, and
  # can leave at any time.
  class Hosting < Base
    # @param id [String] key of the hosting
    # @param calendars_out [Array<String>] keys of one's own calendars that are not looked through
    def agree(id:, calendars_out: [])
      write do
        host = find(Records::OpenHoursHost.lock, id)
        own = Records::Calendar.where(id: calendars_out, person_id: host.person_id).pluck(:id)
        host.update!(agreed_at: host.agreed_at || now, calendars_out: own)
      end
    end

    # Says no, or leaves; what is booked stays.
    # @raise [Core::Conflict] code "last-host"
    def leave(id)
      write do
        host = find(Records::OpenHoursHost.lock, id)
        open = Records::OpenHours.lock.find(host.open_hours_id)
        Core::Asking::OpenHours.refuse_last(open.asked_hosts.size)
        host.delete
        tell_keeper(open, host)
      end
    end

    # To those who have just been added. Inside a transaction.
    # @param hosts [Array<Records::OpenHoursHost>]
    def ask(open, hosts)
      hosts.reject(&:agreed_at).each do |host|
        Outbox.new(clock: @clock).put(
          reason: "hosting:#{host.id}", to: host.person, reply_to: open.kept_by.email,
          **Mailing::BookingLetters.ask_host(title: open.title, keeper: open.kept_by.name, url: page)
        )
      end
    end

    private

    def page = "#{Settings.origin}/open-hours"

    def tell_keeper(open, host)
      return if host.person_id == open.kept_by_id

      letter = Mailing::BookingLetters.host_left(
        title: open.title, name: host.person.name, agreed: !host.agreed_at.nil?, url: "#{page}/#{open.id}"
      )
      Outbox.new(clock: @clock).put(reason: "hosting:left:#{host.id}", to: open.kept_by, **letter)
    end
  end
end
