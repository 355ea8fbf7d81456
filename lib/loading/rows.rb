require "digest"

module Loading
  # What people with times of their own are told of them.
  module Rows
    module_function

    # @return [String] of all one of them is told
    def digest(slot)
      Digest::SHA256.hexdigest(
        [slot.starts_at.to_i, slot.length_min, slot.off, slot.meeting.series.title, slot.meeting.call&.sign].join("|")
      )
    end

    # @param slots [Array<Records::RowSlot>] with their meeting
    # @return [Array<Records::RowSlot>] those who have been told something else than what holds
    def untold(slots)
      slots.reject { |slot| slot.told_digest == digest(slot) || (slot.off && slot.told_digest.nil?) }
    end
  end
end
