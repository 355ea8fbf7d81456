require_relative "../web_helper"

# What people do by themselves, from their mail, their calendar or their own page.
RSpec.describe "People by themselves" do
  let(:monday) { today + 7 + (8 - (today + 7).cwday) % 7 }
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran") }
  let(:round) do
    series(marit, {required: wen}, title: "Mooring round", start: "#{monday}T14:00", rule: "FREQ=WEEKLY;COUNT=6")
  end

  def tray(subject, to)
    deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + 90
    loop do
      visit "#{PostOffice.address}/?to=#{to}"
      break if has_link?(subject, wait: 3)

      late = Process.clock_gettime(Process::CLOCK_MONOTONIC) > deadline
      raise "No mail “#{subject}” to #{to}: #{page.text}" if late
    end
    click_link subject, match: :first
  end

  it "are away for a fortnight in one go, and see first what that does" do
    invite(round, marit)
    sign_in_as "Wen Halloran"
    visit "/people/#{wen}"
    within("section", text: "Away for some days") do
      fill_in "First day away", with: monday.iso8601
      fill_in "Last day away", with: (monday + 13).iso8601
      expect(page).to have_content "14 days off: nobody finds you free then."
      expect(page).to have_css "label", text: "Mooring round", count: 2
      uncheck "Mooring round, #{(monday + 7).strftime("%A %-d %B")}, 14:00"
      fill_in "Why (it goes with the answers)", with: "Harvest"
      click_button "Save the days away"
    end
    expect(page).to have_content "14 days off, and “I cannot” to 1 meeting."
    expect(Records::Answer.pluck(:answer, :note)).to eq [%w[declined Harvest]]
    expect(page).to have_field "Day off 14"
    expect_accessible
  end

  it "leave a series, and say how they want their mail" do
    invite(round, marit)
    sign_in_as "Wen Halloran"
    visit "/series/#{round}?show=people"
    click_button "Leave this series"
    fill_in "A word to Marit Hauge (optional)", with: "New job"
    keep "Leave"
    expect(page).to have_content "You have left “Mooring round”. Marit Hauge hears of it."
    expect(page).to have_no_link "Mooring round"
    visit "/people/#{wen}"
    choose "together in the morning, at 7:00"
    check "Agendas that have changed"
    within("section", text: "Reminders and mail") { click_button "Save" }
    expect(page).to have_content "Saved."
    expect(Records::Person.find(wen).mail_wish.to_h).to eq digest: true, without: ["agenda_changed"]
  end

  it "as guests, say who and where they are, answer some or all, see the times elsewhere, and find all else" do
    Records::Person.where(id: wen).update_all(guest: true)
    endless = series(marit, {required: wen}, title: "Daily round", start: "#{monday}T08:00", rule: "FREQ=DAILY")
    invite(endless, marit)
    invite(round, marit)
    page.driver.browser.resize(width: 390, height: 800)
    visit URI(Loading::AnswerLink.address(endless, wen)).path
    expect(page).to have_css ".house", text: "Skerry Buoy Trust"
    expect(page).to have_content "08:00–08:45"
    select "Europe/Lisbon", from: "Times in"
    expect(page).to have_content "07:00–07:45"
    choose "The 12 of them below"
    within("[aria-label='Your answer for several']") { click_button "I come" }
    expect(page).to have_content "Saved: you come, to 12 meetings."
    expect(Records::Answer.where(answer: "accepted").count).to eq 12
    click_button "My name and time zone"
    fill_in "Your name", with: "Wen Hall"
    find(".v-autocomplete", text: "Time zone").find(".v-field").click
    type "halif"
    find(".v-overlay--active .v-list-item", text: "Halifax").click
    click_button "Save"
    expect(page).to have_content "Saved. Mails say times of day as you have them there."
    find("summary", text: "This page is for Wen Hall. Not you?").click
    expect(page).to have_content "Ask Marit Hauge to invite you with your own address"
    expect(page.evaluate_script("document.documentElement.scrollWidth")).to be <= 390
    expect_accessible
    click_link "Mooring round"
    expect(page).to have_css "h1", text: "Mooring round"
  ensure
    page.driver.browser.resize(width: 1280, height: 800)
  end

  it "decline a booked time from their calendar, hear how to give it back, and do so" do
    open = key
    use(UseCases::OpenHours, marit).create(
      id: open, title: "Buoy clinic", time_zone: "Europe/Oslo", lengths: [30], step_min: 30, notice_min: 60,
      hosts: [{person_id: marit, week: {"mo" => [%w[14:00 15:00]]}}]
    )
    at = Core::Zone["Europe/Oslo"].instant(Core::WallTime.parse("#{monday}T14:00"))
    booking = UseCases::Bookings.new.book(
      Records::OpenHours.find(open), id: key, starts_at: at, length_min: 30, email: "odd@port.example",
      name: "Odd Dahl",
      time_zone: "Europe/Oslo", answers: []
    )
    tray("Booked: Buoy clinic", "odd@port.example")
    click_button "Declined"
    expect(page).to have_current_path(%r{/calendar\?of=}, url: true) # the answer has gone
    tray("Give it back: Buoy clinic", "odd@port.example")
    expect(page).to have_content "You have said that you cannot come"
    tray("Odd Dahl cannot come: Buoy clinic", "marit@skerrybuoy.example")
    visit URI(Loading::AnswerLink.address(booking.series_id, booking.person_id)).path
    expect(page).to have_css "h1", text: "Buoy clinic" # the one page of a booking
    click_button "I cannot: give it back"
    within("[aria-label='Give it back']") { click_button "Give it back" }
    expect(page).to have_content "You have given it back"
    sign_in_as "Marit Hauge"
    visit "/series"
    expect(page).to have_no_content "Buoy clinic: Odd Dahl"
  end

  it "renew a call with a number to dial, and nobody is told the old one" do
    CallExchange.open
    week = series(marit, {required: wen}, title: "Call round", start: "#{monday}T14:00", rule: "FREQ=WEEKLY;COUNT=2",
      call: {kind: "standing", dial: true})
    eventually { Records::Call.find_by(series_id: week)&.number }
    invite(week, marit)
    old = Records::Call.find_by!(series_id: week).pin
    eventually { Records::Mail.where(series_id: week, state: %w[sent delivered]).count == 1 }
    sign_in_as "Marit Hauge"
    visit "/series/#{week}?show=call"
    click_button "Renew the link"
    keep "Renew and tell everybody"
    expect(page).to have_content "The link is renewed."
    eventually { Records::Call.find_by!(series_id: week).pin.then { |pin| pin && pin != old } }
    tray("Changed: Call round", "wen@skerrybuoy.example")
    expect(page).to have_content "PIN #{Records::Call.find_by!(series_id: week).pin}"
    expect(page).to have_no_content old
  end

  it "open the address of a calendar entry, which leads to the date that is on or next" do
    invite(round, marit)
    sign_in_as "Marit Hauge"
    visit "/series/#{round}/now"
    expect(page).to have_current_path "/meetings/#{meeting_ids(round).first}"
  end

  it "hand a series over, are told before what they lose, and can take it back while the notice stands" do
    sign_in_as "Marit Hauge"
    visit "/series/#{round}"
    2.times do |turn|
      click_button "Edit the series"
      within(".v-dialog") { fill_in "Title", with: "Round #{turn}" }
      dialog.click_button "Who"
      choose_from "Keeper", "Wen Halloran"
      choose_from "Chair", "Wen Halloran"
      expect(dialog).to have_content "once it is saved, you cannot change it any more"
      keep
      expect(page).to have_content "goes to Wen Halloran in a moment"
      next within(".v-snackbar") { click_button "Close" } if turn == 1

      click_button "Undo"
      expect(dialog).to have_field "Title", with: "Round 0"
      keep "Cancel"
      page.refresh
    end
    eventually { Records::Series.find(round).keeper_id == wen }
    eventually { Records::Mail.where("reason like 'part:%'").pluck(:recipient).uniq.size == 2 }
  end
end
