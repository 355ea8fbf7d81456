module Views
  # Mail that came in and that somebody should look at.
  class IncomingMails < Base
    PAGE_SIZE = 50

    # What was kept aside of a series, for its keeper.
    def kept_aside(series_id) = {
      mails:
        Records::IncomingMail
          .light
          .where(series_id: series_id, state: "aside")
          .order(received_at: :desc)
          .limit(PAGE_SIZE)
          .map { |mail| row(mail) }
    }

    # What nobody could read, for the admin.
    def unreadable = {
      mails:
        Records::IncomingMail
          .light
          .where(state: "unreadable")
          .or(Records::IncomingMail.light.where(state: "aside", series_id: nil))
          .order(received_at: :desc)
          .limit(PAGE_SIZE)
          .map { |mail| row(mail) }
    }

    private

    def row(mail) = {
      id: mail.id, sender: mail.sender, subject: mail.subject, outcome: mail.outcome, remark: mail.remark,
      words: mail.words, received_at: mail.received_at
    }
  end
end
