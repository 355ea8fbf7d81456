require_relative "../web_helper"

# The keeper invites once and from then on knows who comes; each step is seen in the calendar of an invited person,
# which is made from nothing but the mails.
RSpec.describe "An invitation that holds" do
  oslo = Core::Zone["Europe/Oslo"]
  let(:monday) { today + 7 + (1 - (today + 7).wday) % 7 }
  let(:marit) { person("Marit Hauge", admin: true) }
  # An address of its own for each example: the tray keeps what earlier ones were sent.
  let(:address) { "wen-#{key}@skerrybuoy.example" }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax", email: address) }
  let!(:series_id) do
    series(marit, {required: wen}, title: "Mooring round", start: "#{monday}T14:00", rule: "FREQ=WEEKLY;COUNT=4")
  end

  def day(date) = date.strftime("%a %-d %b %Y")

  def as_keeper = visit("/series/#{series_id}?show=answers")

  def send_invitation
    click_button "Send the invitation"
    within(".v-dialog") do
      click_button(find("button[type=submit]:not([disabled])").text)
      expect(page).to have_content(/Sent to \d/)
      click_button "Done"
    end
  end

  def latest_mail
    Timeout.timeout(60) do
      loop do
        visit "#{PostOffice.address}/?to=#{address}"
        break if has_css?("td a", wait: 5)
      end
    end
    first("td a").click
  end

  # The calendar as the mails have made it, once they are there.
  def expect_calendar(*rows)
    Timeout.timeout(10) do
      loop do
        visit "#{PostOffice.address}/calendar?of=#{address}"
        break if all("tr td:first-child").map { |cell| cell.text[/\A[^–]+/] } == rows
      end
    end
  rescue Timeout::Error
    expect(all("tr td:first-child").map { |cell| cell.text[/\A[^–]+/] }).to eq rows
  end

  it "is answered from a calendar program, countered, moved, called off and brought back" do
    sign_in_as("Marit Hauge")
    as_keeper
    expect(page).to have_content "Nobody has been told of this series yet."
    send_invitation
    days = [0, 7, 14, 21].map { |shift| monday + shift }
    expect_calendar(*days.map { |date| "#{day(date)}, 14:00" })

    # Wen accepts all from the calendar program, then cannot on the second, and offers another time for it.
    latest_mail
    click_button "Accepted"
    latest_mail
    select "#{day(days[1])}, 14:00", from: "Which"
    fill_in "Comment", with: "Dentist", exact: true
    click_button "Declined"
    latest_mail
    select "#{day(days[1])}, 14:00", from: "Instead of"
    fill_in "Offered time", with: (days[1] + 1).to_time + 15 * 3_600
    click_button "Offer this time"

    eventually { Records::OfferedTime.exists? }
    as_keeper
    expect(page).to have_css(
      "section.offered", text: "Wen Halloran offers #{(days[1] + 1).strftime("%A %-d %B")}, 15:00–15:45"
    )
    expect(page).to have_css("td button.accepted", count: 3)
    expect(page).to have_css("td button.declined[aria-label*='Dentist']")
    expect_accessible
    click_link "See it beside everyone's calendars"
    expect(page).to have_css(".fit", text: "15:00")
    expect(page).to have_css(".fit", text: "Wen Halloran")
    as_keeper
    click_button "Take it"
    expect(page).to have_content "1 person to tell of changes"
    send_invitation
    expect_calendar(
      "#{day(days[0])}, 14:00", "#{day(days[1] + 1)}, 15:00", "#{day(days[2])}, 14:00", "#{day(days[3])}, 14:00"
    )
    latest_mail
    expect(page).to have_content "What has changed:"

    # The later ones move, with their sheets.
    third = meeting_ids(series_id)[2]
    topic(third, marit, "Ropes")
    as_keeper
    click_button "Change the times"
    within(".v-dialog") do
      find(".v-field", text: "This is for").click
    end
    find(".v-overlay--active .v-list-item", text: "#{days[2].strftime("%A %-d %B")}, 14:00, and all later").click
    within(".v-dialog") do
      fill_in "First date", with: days[2] + 2
      fill_in "Starts at", with: "10:00"
      find(".v-field", text: "How often").click
    end
    find(".v-overlay--active .v-list-item", text: "Weekly, on chosen days").click
    within(".v-dialog") do
      find(".v-field", text: "End").click
    end
    find(".v-overlay--active .v-list-item", text: "Ends after").click
    within(".v-dialog") do
      fill_in "Number", with: "2"
      expect(page).to have_content "Every Wednesday, 10:00"
    end
    expect_accessible within: ".v-dialog"
    within(".v-dialog") { click_button "Change the times" }
    expect(page).to have_content "2 meetings moved with all that was prepared"
    send_invitation
    expect_calendar(
      "#{day(days[0])}, 14:00", "#{day(days[1] + 1)}, 15:00", "#{day(days[2] + 2)}, 10:00",
      "#{day(days[3] + 2)}, 10:00"
    )
    expect(Records::Topic.find_by(title: "Ropes").meeting_id).to eq third

    # One is called off, and brought back.
    [["called_off", "Storm", days[3] + 2], ["planned", nil, nil]].each do |to, reason, gone|
      state(meeting_ids(series_id).last, marit, to, reason: reason)
      as_keeper
      send_invitation
      rows = [
        "#{day(days[0])}, 14:00", "#{day(days[1] + 1)}, 15:00", "#{day(days[2] + 2)}, 10:00",
        "#{day(days[3] + 2)}, 10:00"
      ]
      expect_calendar(*rows.reject { |row| gone && row.start_with?(day(gone)) })
    end
    as_keeper
    click_button "History"
    expect(page).to have_content "brought back"
    expect(oslo.wall(Records::Meeting.find(third).starts_at).to_s).to end_with "10:00:00"
  end

  it "keeps single answers as they are, whatever is answered to the others, each with its own three buttons" do
    use(UseCases::Invitations, marit).send_all(id: key, series_id: series_id)
    meetings = meeting_ids(series_id)
    link = URI(Loading::AnswerLink.address(series_id, wen)).path
    second = (monday + 7).strftime("%A %-d %B")
    visit link
    click_button "I cannot, #{second}"
    expect(page).to have_content "Saved: you are away, #{second}."
    click_button "Add a note, #{second}"
    type "At the dentist"
    type(:enter)
    expect(page).to have_content "“At the dentist”"
    visit "#{link}?answer=accepted"
    expect(page).to have_css "button[aria-pressed=true]", text: "I cannot", count: 1
    expect(page).to have_content "All 3 that are still open"
    find("[aria-label='Your answer for all that are still open']").click_button("I come")
    expect(page).to have_content "Saved: you come, to all that were open."
    expect(meetings.map { |id| Records::Answer.where(meeting_id: id, person_id: wen).pick(:answer, :note) }).to eq [
      ["accepted", nil], ["declined", "At the dentist"], ["accepted", nil], ["accepted", nil]
    ]
    expect(page).to have_no_content "still open"
    click_button "Offer another time"
    expect(page).to have_button "Send the offer", disabled: true
    expect_accessible
  end

  it "is answered from a phone by the link in the mail, which changes nothing by being opened" do
    use(UseCases::Invitations, marit).send_all(id: key, series_id: series_id)
    page.driver.browser.resize(width: 390, height: 800)
    visit "#{URI(Loading::AnswerLink.address(series_id, wen)).path}?answer=tentative"
    expect(page).to have_css("h1", text: "Mooring round")
    expect(page).to have_content "You chose “I may come” in the mail. Press it for each meeting it is true of."
    expect(page).to have_css(".suggested", text: "I may come", minimum: 1)
    expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= 390
    expect_accessible
    expect(Records::Answer.count).to eq 0
    fill_in "A note with it (optional)", with: "Depends on the ferry"
    find("[aria-label='Your answer for all that are still open']").click_button("I may come")
    expect(page).to have_content "Saved: you may come, to all that were open."
    expect(Records::Answer.pluck(:answer, :way, :note).uniq).to eq [["tentative", "link", "Depends on the ferry"]]
    visit "/answer/#{series_id}/#{wen}/#{"0" * 40}"
    expect(page).to have_content "This link is no longer valid"
  ensure
    page.driver.browser.resize(width: 1280, height: 800)
  end
end
