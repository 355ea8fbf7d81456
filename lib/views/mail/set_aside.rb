module Views
  # All that could not be done in three tries, for an admin.
  class SetAside < Base
    LISTED = 100

    # All that was set aside, for the admin.
    def list
      {
        notes: Settings.doubts, mails: mails.map { |mail| row(mail, mail.subject, mail.last_error, mail.updated_at) },
        incoming_mails: incoming.map { |mail| row(mail, mail.subject.to_s, mail.remark, mail.received_at) },
        calendars:
          calendars.map do |calendar|
            row(
              calendar, "#{calendar.name} (#{(calendar.person || calendar.place).name})", calendar.last_error,
              calendar.updated_at
            )
          end,
        calls: calls.map { |call| row(call, call.series&.title.to_s, call.last_error, call.updated_at) },
        steps:
          Records::Fault
            .where("tries >= ?", Core::Retries::MOST_TRIES)
            .order(failed_at: :desc)
            .limit(LISTED)
            .map { |fault| row(fault, fault.step.tr("_", " "), fault.error, fault.failed_at) }
      }
    end

    private

    def mails = Records::Mail.set_aside.limit(LISTED)

    def incoming = Records::IncomingMail.light.set_aside.limit(LISTED)

    def calendars = Records::Calendar.light.set_aside.includes(:person, :place).limit(LISTED)

    def calls = Records::Call.set_aside.includes(:series).limit(LISTED)

    def row(row, title, reason, at) = {id: row.id, title: title, reason: reason.to_s, at: at}
  end
end
