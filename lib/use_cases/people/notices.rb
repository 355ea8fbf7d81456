module UseCases
  # Putting aside what stands on one's own Desk, and taking it back.
  class Notices < Base
    # So long nothing on a Desk stays as it was.
    LASTS_S = 180 * 86_400
    # Nobody has more on their Desk; the oldest go for those put aside now.
    MOST = 500

    # @param notice [String] as the Desk names it
    def keep(notice:, seen:)
      write do
        mine = Records::SeenNotice.where(person_id: by)
        mine.where("seen_at < ?", now - LASTS_S).delete_all
        next mine.where(notice: notice).delete_all unless seen

        Records::SeenNotice.insert_all([{person_id: by, notice: notice, seen_at: now}])
        too_old = mine.order(seen_at: :desc).offset(MOST).pick(:seen_at)
        mine.where(seen_at: ..too_old).delete_all if too_old
      end
    end
  end
end
