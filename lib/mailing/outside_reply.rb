module Mailing
  # What an organizer elsewhere reads of an answer, for whoever has no calendar program to show it.
  module OutsideReply
    SUBJECTS = {"accepted" => "Accepted", "tentative" => "Perhaps", "declined" => "Declined"}.freeze
    WORDS = {"accepted" => "comes", "tentative" => "may come", "declined" => "cannot come"}.freeze
  end
end
